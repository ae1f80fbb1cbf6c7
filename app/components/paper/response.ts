import type { Point } from '~~/core/kit/shapes'

/** An answer as the page holds and sends it: one shape for all ways of asking. */
export interface Response {
  chosen?: string[]
  text?: string
  gaps?: Record<string, string>
  pairs?: Record<string, string>
  ticks?: Record<string, string[]>
  order?: string[]
  points?: Point[]
  sound?: string
  seconds?: number
}

/** Keeps a recording as the answer to its question. A sitting provides its own; a preview keeps nothing. */
export type KeepRecording = (sound: Blob, seconds: number) => Promise<void>
export const keepRecordingKey: InjectionKey<KeepRecording> = Symbol('keepRecording')
