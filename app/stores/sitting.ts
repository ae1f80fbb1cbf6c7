import type { Instant } from '~~/core/kit/time'
import type { Sheet, SheetQuestion } from '~~/core/paper/schema'
import type { Response } from '~/components/paper/response'
import { forget, recall, remember, thisDevice, type Remembered } from './sitting-memory'

interface SittingClock {
  now: Instant
  deadline: Instant | null
  hardStop: Instant | null
  phase: 'running' | 'grace' | 'overrun' | 'ended'
  ended: boolean
  atDeadline: 'handIn' | 'finish' | 'unsent'
}
interface Opened {
  attempt: string
  quiz: string
  number: number
  startedAt: Instant
  lease: number
  page: number
  sheet: Sheet
  seq: number
  clock: SittingClock
  tookOver: boolean
  answers: { item: string; response: Response | null; flagged: boolean; keptAt: Instant | null }[]
}
interface SaveReply {
  now: Instant
  kept: string[]
  refused: { item: string; reason: 'ended' | 'lease' | 'page' | 'stale' }[]
}
interface Entry {
  response: Response | null
  flagged: boolean
  seq: number
}

const pauseBeforeSave = 400
const heartbeat = 15_000
/** The server will never take such a request as it is. */
const hopeless = [400, 413, 422]
/** Nobody is signed in, or somebody to whom this paper does not belong. */
const strangers = [401, 403, 404]

/** A sitting on this device: answers in the browser first, then on the server whenever it can be reached. */
export const useSitting = defineStore('sitting', () => {
  const opened = shallowRef<Opened | null>(null)
  const clock = shallowRef<SittingClock | null>(null)
  const answers = ref<Record<string, Entry>>({})
  const pending = ref(new Set<string>())
  const struck = ref<Record<string, string[]>>({})
  const offline = ref(false)
  /** The session has ended under the paper: answers wait in the browser until somebody signs in again. */
  const signedOut = ref(false)
  const keptAt = ref<Instant | null>(null)
  const lease = ref<'held' | 'lost'>('held')
  const phase = ref<'loading' | 'sitting' | 'ended'>('loading')
  const page = ref(0)
  /** The question that the student is at. */
  const here = ref<string | null>(null)
  const setAside = ref(0)
  let seq = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let beat: ReturnType<typeof setInterval> | undefined
  let saving: Promise<void> | null = null
  let backoff = 1000

  const questions = computed<SheetQuestion[]>(
    () =>
      opened.value?.sheet.sections.flatMap((section) =>
        section.entries.filter((entry): entry is SheetQuestion => entry.type === 'question'),
      ) ?? [],
  )
  const canWrite = computed(() => phase.value === 'sitting' && lease.value === 'held')

  function keepHere() {
    const current = opened.value
    if (!current) return
    remember(current.attempt, {
      lease: current.lease,
      seq,
      page: page.value,
      here: here.value,
      struck: struck.value,
      pending: Object.fromEntries([...pending.value].map((item) => [item, answers.value[item]!])),
    })
  }

  /** Nothing of the paper that was open before in this tab belongs to another one. */
  function startAfresh() {
    page.value = 0
    here.value = null
    struck.value = {}
    setAside.value = 0
  }

  /** @param language chosen just now; absent keeps what was chosen before */
  async function open(attempt: string, language?: string | null) {
    const result = await api<Opened>(`sittings/${attempt}/open`, {
      method: 'POST',
      body: { device: thisDevice(), language },
    })
    setServerTime(result.clock.now)
    const isOther = opened.value?.attempt !== attempt
    opened.value = result
    clock.value = result.clock
    if (isOther) startAfresh()
    const memory = recall(attempt)
    page.value = Math.min(Math.max(result.page, memory?.page ?? 0, page.value), result.sheet.pages - 1)
    here.value ??= memory?.here ?? null
    struck.value = memory?.struck ?? struck.value
    answers.value = Object.fromEntries(
      result.answers.map(({ item, response, flagged }) => [item, { response, flagged, seq: 0 }]),
    )
    keptAt.value =
      result.answers
        .map((each) => each.keptAt)
        .filter((at): at is Instant => at !== null)
        .sort()
        .at(-1) ?? null
    seq = result.seq
    pending.value = new Set()
    signedOut.value = false
    if (memory) await takeUp(attempt, result, memory)
    lease.value = 'held'
    phase.value = result.clock.ended ? 'ended' : 'sitting'
    clearInterval(beat)
    beat = setInterval(ask, heartbeat)
    keepHere()
    if (pending.value.size) schedule(0)
  }

  /** Takes up what this browser wrote and the server has not: under this lease if nobody wrote in between, else set aside. */
  async function takeUp(attempt: string, result: Opened, memory: Remembered) {
    const entries = Object.entries(memory.pending)
    if (!entries.length) return
    if (memory.lease === result.lease || (result.tookOver && memory.lease === result.lease - 1)) {
      seq = Math.max(seq, memory.seq)
      for (const [item, entry] of entries) {
        answers.value[item] = { ...entry, seq: ++seq }
        pending.value.add(item)
      }
      return
    }
    setAside.value = entries.length
    await api(`sittings/${attempt}/answers`, {
      method: 'POST',
      body: { lease: memory.lease, answers: entries.map(([item, entry]) => ({ item, ...entry })) },
    }).catch(() => {})
  }

  function change(item: string, values: Partial<Pick<Entry, 'response' | 'flagged'>>) {
    if (!canWrite.value) return
    answers.value[item] = { ...(answers.value[item] ?? { response: null, flagged: false }), ...values, seq: ++seq }
    pending.value.add(item)
    keepHere()
    schedule(pauseBeforeSave)
  }

  function strike(item: string, option: string) {
    const before = struck.value[item] ?? []
    struck.value[item] = before.includes(option) ? before.filter((each) => each !== option) : [...before, option]
    keepHere()
  }

  function schedule(wait: number) {
    clearTimeout(timer)
    timer = setTimeout(() => {
      void flush()
    }, wait)
  }

  /** Sends what is pending; one request at a time. */
  async function flush(): Promise<void> {
    if (saving) await saving
    if (!opened.value || !pending.value.size || lease.value === 'lost') return
    saving = send().finally(() => {
      saving = null
    })
    await saving
    if (pending.value.size && !offline.value && !signedOut.value && phase.value === 'sitting') schedule(pauseBeforeSave)
  }

  async function send() {
    const sent = [...pending.value].slice(0, 100).map((item) => ({ item, ...answers.value[item]! }))
    try {
      const reply = await api<SaveReply>(`sittings/${opened.value!.attempt}/answers`, {
        method: 'POST',
        body: { lease: opened.value!.lease, answers: sent },
      })
      setServerTime(reply.now)
      offline.value = false
      backoff = 1000
      const refused = new Map(reply.refused.map(({ item, reason }) => [item, reason]))
      for (const { item, seq: at } of sent) {
        if (answers.value[item]!.seq === at) pending.value.delete(item)
        if (refused.get(item) === 'lease') lease.value = 'lost'
        if (refused.get(item) === 'ended') end()
      }
      if (reply.kept.length) keptAt.value = reply.now
      keepHere()
    } catch (error) {
      if (error instanceof ApiProblem && hopeless.includes(error.status)) {
        // The server will never take this as it is; the page says so and keeps what was typed.
        sent.forEach(({ item }) => pending.value.delete(item))
        announce(error.message)
        return
      }
      noteTrouble(error)
      schedule(backoff)
      backoff = Math.min(backoff * 2, 15_000)
    }
  }

  /** Asks for the clock: more time given, another device, or the end. */
  async function ask() {
    if (!opened.value || phase.value !== 'sitting') return
    try {
      const reply = await api<SittingClock & { leaseHeld: boolean }>(`sittings/${opened.value.attempt}/clock`, {
        query: { lease: opened.value.lease },
      })
      setServerTime(reply.now)
      clock.value = reply
      if ((offline.value || signedOut.value) && pending.value.size) schedule(0)
      offline.value = false
      signedOut.value = false
      if (reply.ended) end()
      else if (!reply.leaseHeld) lease.value = 'lost'
    } catch (error) {
      noteTrouble(error)
    }
  }

  /** Signed out is not offline: waiting would not help. Anything else is tried again. */
  function noteTrouble(error: unknown) {
    signedOut.value = error instanceof ApiProblem && strangers.includes(error.status)
    offline.value = !signedOut.value
  }

  function end() {
    phase.value = 'ended'
    clearInterval(beat)
    clearTimeout(timer)
  }

  /** Sends what is left and hands the paper in. @throws ApiProblem when the server cannot be reached */
  async function handIn() {
    await flush()
    if (pending.value.size && (offline.value || signedOut.value))
      throw new ApiProblem(
        0,
        'offline',
        'Not all answers have reached the server yet. They are kept on this device; try again when you are connected.',
      )
    await api(`sittings/${opened.value!.attempt}/hand-in`, { method: 'POST', body: { lease: opened.value!.lease } })
    forget(opened.value!.attempt)
    end()
  }

  /** Where the student is, for coming back to after a reload. */
  function goes(item: string | null) {
    here.value = item
    keepHere()
  }

  async function goTo(next: number) {
    page.value = next
    keepHere()
    if (opened.value?.sheet.movement !== 'forward') return
    await flush()
    const reply = await api<{ page: number }>(`sittings/${opened.value.attempt}/page`, {
      method: 'POST',
      body: { lease: opened.value.lease, page: next },
    })
    page.value = Math.max(next, reply.page)
  }

  function leave() {
    clearInterval(beat)
    void flush()
  }

  return {
    opened,
    clock,
    answers,
    pending,
    struck,
    offline,
    signedOut,
    keptAt,
    lease,
    phase,
    page,
    here,
    setAside,
    questions,
    canWrite,
    open,
    change,
    strike,
    flush,
    ask,
    handIn,
    goTo,
    goes,
    leave,
  }
})
