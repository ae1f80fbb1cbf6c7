import { count } from '../../../core/kit/phrases'

type Detail = Record<string, unknown>

/** How lines of the record read that say more than their name: what was done, and what else belongs to it. */
const said: Record<string, (detail: Detail, name: (id: unknown) => string) => { what: string; more?: string[] }> = {
  'quiz opened': ({ edition }) => ({ what: `opened it, edition ${Number(edition)}` }),
  'new edition': ({ edition }) => ({ what: `gave later starts edition ${Number(edition)}` }),
  'quiz published': () => ({ what: 'opened it again' }),
  'quiz withdrawn': () => ({ what: 'withdrew it' }),
  'quiz filed': () => ({ what: 'filed it away' }),
  'quiz draft': () => ({ what: 'brought it back to be worked on' }),
  'quiz closed now': ({ ended, inClass, students }, name) => ({
    what: `closed it at once${inClass ? ` for ${name(inClass)}` : Array.isArray(students) ? ` for ${students.map(name).join(', ')}` : ''}`,
    more: [`${count(Number(ended), 'paper')} under way ${Number(ended) === 1 ? 'was' : 'were'} handed in`],
  }),
  'rules changed': ({ changes }) => ({ what: 'changed the rules', more: texts(changes) }),
  'quiz copied': ({ leftOut }) => ({
    what: 'made it as a copy',
    more: Number(leftOut) ? [`${count(Number(leftOut), 'question')} left out`] : [],
  }),
  'quiz shared': ({ with: other, may }, name) => ({
    what: `let ${name(other)} ${may === 'read' ? 'look at it' : 'work in it'}`,
  }),
  'quiz no longer shared': ({ with: other }, name) => ({ what: `ended that ${name(other)} works in it` }),
  released: ({ class: group }, name) => ({ what: `released results to ${name(group)}` }),
  'release taken back': ({ class: group }, name) => ({ what: `took back the release to ${name(group)}` }),
  'check set aside': ({ reason }) => ({ what: 'set a check aside', more: texts([reason]) }),
  'check taken up': () => ({ what: 'took a check up again' }),
  'link made': () => ({ what: 'made a link' }),
  'link changed': () => ({ what: 'made another link: the old one leads nowhere' }),
  'opening set': ({ at, says }) => ({ what: 'set when it opens by itself', more: texts([says ?? at]) }),
  'opening called off': () => ({ what: 'called off that it opens by itself' }),
  'opening refused': ({ says }) => ({ what: 'could not open it by itself', more: texts([says]) }),
  'everybody let back in': () => ({ what: 'let everybody back into their papers' }),
  'days sent': ({ student }, name) => ({ what: `sent ${name(student)} what they will see, and when` }),
  'sitting started': ({ attempt }) => ({ what: `started attempt ${Number(attempt)}` }),
  'handed in': () => ({ what: 'handed in' }),
  'left unsent': () => ({ what: 'left it unsent' }),
  'taken up again': () => ({ what: 'took it up again' }),
  'break ended': ({ minutes }) => ({ what: `ended a break of ${count(Number(minutes), 'minute')}` }),
  'section entered': ({ section }) => ({ what: `entered “${String(section)}”` }),
  'marked by hand': ({ points }) => ({ what: `marked by hand: ${count(Number(points), 'point')}` }),
}

const texts = (of: unknown): string[] =>
  Array.isArray(of) ? of.filter((each): each is string => typeof each === 'string' && each !== '') : []

/**
 * A line of the record in words. What has none of its own reads as it was written.
 * @param names of people and classes by their ids
 */
export function recordWords(
  what: string,
  detail: Detail,
  names: ReadonlyMap<string, string>,
): { what: string; more: string[] } {
  const words = said[what]?.(detail, (id) => names.get(String(id)) ?? 'somebody who is no longer here')
  return { what: words?.what ?? what, more: words?.more ?? [] }
}
