import { AsyncLocalStorage } from 'node:async_hooks'

/** What holds while something is played on a stage: a transaction that is never kept (`Database.staged`). */
export interface Stage {
  /** What is remembered while it is played, and forgotten with it. */
  remembered: Map<object, Map<string, unknown>>
  /** Random bytes that come again at every performance of the same. */
  bytes(length: number): Buffer
  /** Does here what a thread would do elsewhere, beside the transaction. */
  job(name: string, input: readonly unknown[]): Promise<unknown>
}

const current = new AsyncLocalStorage<Stage>()

/** The stage that whoever asks stands on; undefined in real life. */
export const onStage = (): Stage | undefined => current.getStore()

/** Does something on a stage, with all that it calls. */
export const onto = <T>(stage: Stage, work: () => Promise<T>): Promise<T> => current.run(stage, work)
