import { alikeName } from '../people'
import type { Roster, RosterClass, RosterEnrolment, RosterPerson, RosterTerm, Standing } from './roster'

type StandingPerson = Standing['people'][number]

/** What becomes of somebody of a roster. A doubt is taken in only where it was decided. */
export type Fate =
  | { is: 'new' }
  | { is: 'same'; id: string }
  | { is: 'changed'; id: string; was: { name: string; email: string | null } }
  | { is: 'doubtful'; why: string; could: { id: string; name: string; email: string | null }[] }
  | { is: 'left out' }

/** What was decided about a doubt, by the key of its row: somebody of the school by their id, somebody new, or nobody. */
export type Decisions = Record<string, string>
export const decideNew = 'new'
export const decideOut = 'out'

export interface PlannedPerson {
  person: RosterPerson
  fate: Fate
}
export interface PlannedClass {
  class: RosterClass
  /** Null for one that is made. */
  id: string | null
  was: string | null
}
export interface PlannedTerm {
  term: RosterTerm
  id: string | null
}
export interface RosterPlan {
  people: PlannedPerson[]
  classes: PlannedClass[]
  terms: PlannedTerm[]
  /** Enrolments that are new, by keys. */
  enrolments: RosterEnrolment[]
  /** How many there are already. */
  enrolled: number
  /** Who is in a class of the file now and is not in it there: they stay unless it is said otherwise. */
  left: { class: string; className: string; person: string; name: string }[]
  notes: string[]
  faults: Roster['faults']
}

function byKey<T>(items: readonly T[], key: (item: T) => string | null): Map<string, T[]> {
  const map = new Map<string, T[]>()
  for (const item of items) {
    const found = key(item)
    if (found === null) continue
    const there = map.get(found)
    if (there) there.push(item)
    else map.set(found, [item])
  }
  return map
}
const shown = ({ id, name, email }: StandingPerson) => ({ id, name, email })

/** Whoever the file names twice in ways that cannot both be. */
function twiceInFile(people: readonly RosterPerson[]): Map<string, string> {
  const doubts = new Map<string, string>()
  const tell = (groups: Map<string, RosterPerson[]>, what: string) => {
    for (const group of groups.values()) {
      if (group.length < 2) continue
      const some = group.slice(0, 4)
      for (const { key, place } of group) {
        const others = some.filter((each) => each.place !== place).slice(0, 3)
        doubts.set(key, `${what} (${others.map((each) => each.place).join('; ')}).`)
      }
    }
  }
  tell(
    byKey(people, ({ email }) => email),
    'Somebody else of the file has this address too',
  )
  tell(
    byKey(people, ({ outsideId }) => outsideId),
    'Somebody else of the file has this id too',
  )
  return doubts
}

/** Ways to find people of the school. */
interface Known {
  byOutside: Map<string, StandingPerson[]>
  byEmail: Map<string, StandingPerson[]>
  byName: Map<string, StandingPerson[]>
  classesOf: Map<string, string[]>
  elsewhere: ReadonlySet<string>
}

const doubtful = (why: string, could: readonly StandingPerson[] = []): Fate => ({
  is: 'doubtful',
  why,
  could: could.map(shown),
})

function matched(person: RosterPerson, found: StandingPerson): Fate {
  if (found.role !== person.role)
    return doubtful(`In the school this is a ${found.role}, in the file a ${person.role}.`, [])
  const differs =
    found.name !== person.name ||
    (person.email !== null && found.email !== person.email) ||
    (person.outsideId !== null && found.outsideId !== person.outsideId) ||
    found.state === 'left'
  return differs
    ? { is: 'changed', id: found.id, was: { name: found.name, email: found.email } }
    : { is: 'same', id: found.id }
}

function fateOf(person: RosterPerson, classes: readonly string[], known: Known): Fate {
  const outside = person.outsideId === null ? undefined : known.byOutside.get(person.outsideId)?.[0]
  const email = person.email === null ? undefined : known.byEmail.get(person.email)?.[0]
  if (person.email !== null && known.elsewhere.has(person.email))
    return doubtful('This address cannot be used here. Take another one of theirs.')
  if (outside && email && outside.id !== email.id)
    return doubtful('By the id this is one person of the school, by the address another.', [outside, email])
  if (outside) return matched(person, outside)
  if (email) {
    const other = email.outsideId !== null && person.outsideId !== null
    return other
      ? doubtful('Somebody of the school has this address, with another id.', [email])
      : matched(person, email)
  }
  const same = (known.byName.get(alikeName(person.name)) ?? []).filter(({ role }) => role === person.role)
  if (person.email !== null || person.outsideId !== null || !same.length) {
    // Somebody who has no address yet may be the one who has now.
    const bare = same.filter((each) => each.email === null && each.outsideId === null)
    return bare.length ? doubtful('Somebody of this name is in the school, without an address.', bare) : { is: 'new' }
  }
  const here = same.filter(({ id }) => known.classesOf.get(id)?.some((each) => classes.includes(each)))
  return here.length === 1
    ? matched(person, here[0]!)
    : doubtful('There is somebody of this name in the school.', here.length ? here : same)
}

function decided(fate: Fate, person: RosterPerson, decision: string | undefined, known: Known): Fate {
  if (fate.is !== 'doubtful' || decision === undefined) return fate
  if (decision === decideOut) return { is: 'left out' }
  const taken =
    (person.email !== null && (known.byEmail.has(person.email) || known.elsewhere.has(person.email))) ||
    (person.outsideId !== null && known.byOutside.has(person.outsideId))
  if (decision === decideNew) return taken ? fate : { is: 'new' }
  const chosen = fate.could.find(({ id }) => id === decision)
  return chosen ? { is: 'changed', id: chosen.id, was: { name: chosen.name, email: chosen.email } } : fate
}

/** Names are compared as people read them. */
const named = (name: string) => alikeName(name)

/**
 * What taking a roster in would do to a school, decided here alone: the look shows it, and it is what is done. People are
 * found by the id that the file's system has for them, else by their address, else, where they have neither, by their
 * name in one of their classes. Whatever could be two things is a doubt.
 */
export function compareRoster(roster: Roster, standing: Standing, decisions: Decisions = {}): RosterPlan {
  const classIds = new Map<string, PlannedClass>()
  const [byOutside, byTitle] = [
    byKey(standing.classes, (each) => each.outsideId),
    byKey(
      standing.classes.filter((each) => !each.filed),
      (each) => named(each.name),
    ),
  ]
  const faults = [...roster.faults]
  for (const each of roster.classes) {
    const same = each.outsideId === null ? undefined : byOutside.get(each.outsideId)?.[0]
    const alike = same
      ? [same]
      : (byTitle.get(named(each.name)) ?? []).filter((one) => one.outsideId === null || each.outsideId === null)
    if (alike.length > 1)
      faults.push({
        place: each.name,
        sentence: `${alike.length} classes of the school are called so. Rename all but one, or file them away.`,
      })
    else classIds.set(each.key, { class: each, id: alike[0]?.id ?? null, was: alike[0]?.name ?? null })
  }
  const terms = roster.terms.map((term): PlannedTerm => ({
    term,
    id:
      standing.terms.find(
        (each) =>
          (term.outsideId !== null && each.outsideId === term.outsideId) || named(each.name) === named(term.name),
      )?.id ?? null,
  }))
  const known: Known = {
    byOutside: byKey(standing.people, ({ outsideId }) => outsideId),
    byEmail: byKey(standing.people, ({ email }) => email),
    byName: byKey(standing.people, ({ name }) => alikeName(name)),
    classesOf: new Map(
      [...byKey(standing.enrolments, ({ person }) => person)].map(([person, each]) => [
        person,
        each.map((one) => one.class),
      ]),
    ),
    elsewhere: new Set(standing.elsewhere),
  }
  const classesOfKey = byKey(roster.enrolments, ({ person }) => person)
  const twice = twiceInFile(roster.people)
  const found = roster.people.map((person): PlannedPerson => {
    const classes = (classesOfKey.get(person.key) ?? []).flatMap((each) => classIds.get(each.class)?.id ?? [])
    const why = twice.get(person.key)
    const fate = why ? doubtful(why) : fateOf(person, classes, known)
    return { person, fate: decided(fate, person, decisions[person.key], known) }
  })
  const people = oneEach(found)
  return {
    people,
    classes: [...classIds.values()],
    terms,
    faults,
    notes: roster.notes,
    ...enrolling(roster, standing, people, classIds),
  }
}

/** Two rows cannot both be one person of the school: one found by an id or an address comes before one found by a name. */
function oneEach(people: readonly PlannedPerson[]): PlannedPerson[] {
  const bare = ({ person }: PlannedPerson) => person.email === null && person.outsideId === null
  const taken = new Map<string, PlannedPerson>()
  for (const each of [...people.filter((one) => !bare(one)), ...people.filter(bare)])
    if ((each.fate.is === 'same' || each.fate.is === 'changed') && !taken.has(each.fate.id))
      taken.set(each.fate.id, each)
  return people.map((each) => {
    if (each.fate.is !== 'same' && each.fate.is !== 'changed') return each
    if (taken.get(each.fate.id) === each) return each
    return { ...each, fate: doubtful('Another row of the file is this person already.') }
  })
}

function enrolling(
  roster: Roster,
  standing: Standing,
  people: readonly PlannedPerson[],
  classes: ReadonlyMap<string, PlannedClass>,
): Pick<RosterPlan, 'enrolments' | 'enrolled' | 'left'> {
  const fates = new Map(people.map(({ person, fate }) => [person.key, fate]))
  const ids = (key: string) => {
    const fate = fates.get(key)
    return fate && (fate.is === 'same' || fate.is === 'changed') ? fate.id : null
  }
  const pair = (each: { class: string; person: string }) => `${each.class} ${each.person}`
  const [there, teaching] = [new Set(standing.enrolments.map(pair)), new Set(standing.teachers.map(pair))]
  const enrolments: RosterEnrolment[] = []
  const inFile = new Set<string>()
  let enrolled = 0
  const asked = new Set<string>()
  for (const each of roster.enrolments) {
    const planned = classes.get(each.class)
    const fate = fates.get(each.person)
    const once = `${each.class} ${each.person}`
    if (!planned || !fate || fate.is === 'left out' || fate.is === 'doubtful' || asked.has(once)) continue
    asked.add(once)
    const id = ids(each.person)
    const standingPair = planned.id !== null && id !== null ? `${planned.id} ${id}` : null
    if (standingPair) inFile.add(standingPair)
    if (standingPair && (each.role === 'student' ? there : teaching).has(standingPair)) enrolled++
    else enrolments.push(each)
  }
  // Who is doubtful has not left: it is not known who they are.
  const unsure = new Set(people.flatMap(({ fate }) => (fate.is === 'doubtful' ? fate.could.map(({ id }) => id) : [])))
  const names = new Map(standing.people.map(({ id, name }) => [id, name]))
  const covered = new Map(
    [...classes.values()].flatMap((each) => (each.id === null ? [] : [[each.id, each.class.name] as const])),
  )
  const left = standing.enrolments
    .filter((each) => covered.has(each.class) && !inFile.has(pair(each)) && !unsure.has(each.person))
    .map((each) => ({
      class: each.class,
      className: covered.get(each.class)!,
      person: each.person,
      name: names.get(each.person) ?? '',
    }))
  return { enrolments, enrolled, left }
}
