import type { OwnNote } from '~~/server/domain/sittings/notes'
import { ApiProblem } from '../client/api'
import type { Memory, Timers } from './device'

const pause = 800
const retry = 5000
/** The server will never take such a note as it is, or the paper is over. */
const hopeless = [400, 404, 409, 413, 422]

/**
 * A student's own notes and highlights on a paper: in this browser first, then on the server. What is not there yet is kept
 * over a reload.
 */
export class OwnNotes {
  notes: Readonly<Record<string, OwnNote>>
  private waiting = new Set<string>()
  private stop: (() => void) | null = null
  private sending = false
  private left = false

  constructor(
    attempt: string,
    known: Readonly<Record<string, OwnNote>>,
    private readonly send: (item: string, note: OwnNote) => Promise<unknown>,
    private readonly memory: Memory,
    private readonly timers: Timers,
    private readonly changed: () => void,
  ) {
    this.name = `thistle:notes:${attempt}`
    const unsent = (memory.read(this.name) ?? {}) as Record<string, OwnNote>
    this.notes = { ...known, ...unsent }
    this.waiting = new Set(Object.keys(unsent))
    if (this.waiting.size) this.later(0)
  }
  private readonly name: string

  of(item: string): OwnNote {
    return this.notes[item] ?? { note: '', marks: [] }
  }

  change(item: string, values: Partial<OwnNote>): void {
    this.notes = { ...this.notes, [item]: { ...this.of(item), ...values } }
    this.waiting.add(item)
    this.remember()
    this.changed()
    this.later(pause)
  }

  private remember(): void {
    if (!this.waiting.size) this.memory.forget(this.name)
    else this.memory.write(this.name, Object.fromEntries([...this.waiting].map((item) => [item, this.of(item)])))
  }

  private later(wait: number): void {
    this.stop?.()
    if (!this.left) this.stop = this.timers.after(wait, () => void this.flush())
  }

  /** Sends what waits, one after another; what cannot be sent now is tried again. */
  async flush(): Promise<void> {
    if (this.sending) return
    this.sending = true
    try {
      for (const item of [...this.waiting]) {
        const note = this.of(item)
        await this.send(item, note).catch((error: unknown) => {
          if (!(error instanceof ApiProblem) || !hopeless.includes(error.status)) throw error
        })
        if (this.of(item) === note) this.waiting.delete(item)
        this.remember()
      }
      if (this.waiting.size) this.later(pause)
    } catch {
      this.later(retry)
    } finally {
      this.sending = false
    }
  }

  leave(): void {
    this.stop?.()
    this.left = true
    void this.flush()
  }
}
