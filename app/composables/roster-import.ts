import { rosterRoutes } from '~/client/roster'
import type { Reply } from '~/client/route'

export type RosterLook = Reply<typeof rosterRoutes.look>
type Columns = NonNullable<RosterLook['columns']>['taken']
interface Sent {
  name: string
  base64: string
}

const asBase64 = (file: File): Promise<Sent> =>
  new Promise((done, failed) => {
    const reader = new FileReader()
    reader.onerror = () => {
      failed(new Error(`“${file.name}” cannot be read.`))
    }
    reader.onload = () => {
      done({ name: file.name, base64: String(reader.result).split(',')[1] ?? '' })
    }
    reader.readAsDataURL(file)
  })

/** A roster on its way in: files, what was said of them, what they would do, and taking them in, which can be stopped. */
export function useRosterImport() {
  const files = shallowRef<Sent[]>([])
  const columns = ref<Columns | null>(null)
  const decisions = ref<Record<string, string>>({})
  const takeOut = ref(false)
  const look = shallowRef<RosterLook | null>(null)
  const taken = shallowRef<Reply<typeof rosterRoutes.taken>>([])
  const problem = ref('')
  const doing = ref<'' | 'looking' | 'taking' | 'undoing'>('')
  let stop: AbortController | null = null

  /** @returns what was given, or undefined where it was stopped or refused */
  async function run<T>(what: 'looking' | 'taking' | 'undoing', work: (signal: AbortSignal) => Promise<T>) {
    stop?.abort()
    const mine = (stop = new AbortController())
    doing.value = what
    problem.value = ''
    try {
      return await work(mine.signal)
    } catch (error) {
      if (!mine.signal.aborted) problem.value = sentenceOf(error)
      return undefined
    } finally {
      if (stop === mine) doing.value = ''
    }
  }
  const body = () => ({ files: files.value, columns: columns.value, decisions: decisions.value })

  async function see() {
    const found = await run('looking', (signal) => rosterRoutes.look({ body: body(), signal }))
    if (found) look.value = found
  }
  async function choose(chosen: readonly File[]) {
    if (!chosen.length) return
    look.value = null
    columns.value = null
    decisions.value = {}
    const read = await run('looking', () => Promise.all(chosen.map(asBase64)))
    if (!read) return
    files.value = read
    await see()
  }
  async function load() {
    taken.value = await rosterRoutes.taken()
  }
  async function take() {
    const { mark } = look.value!
    const done = await run('taking', (signal) =>
      rosterRoutes.take({ body: { ...body(), mark, takeOut: takeOut.value }, signal }),
    )
    if (!done) return
    look.value = null
    files.value = []
    announce(`${done.people} people and ${done.enrolments} enrolments came in.`, () => void undo(done.id))
    await load()
  }
  async function undo(id: string) {
    const done = await run('undoing', () => rosterRoutes.undo({ id }))
    if (!done) return
    taken.value = done.taken
    announce(
      done.stayed
        ? `Taken back. ${done.stayed} who have done something since stay as they are.`
        : 'Taken back: the school is as it was.',
    )
  }
  return {
    files,
    columns,
    decisions,
    takeOut,
    look,
    taken,
    problem,
    doing,
    choose,
    see,
    take,
    undo,
    load,
    stop() {
      stop?.abort()
      doing.value = ''
      announce('Stopped: nothing came in.')
    },
    leave() {
      look.value = null
      files.value = []
    },
  }
}
