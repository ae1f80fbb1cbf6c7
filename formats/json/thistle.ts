import { z } from 'zod'
import { completed, question, stimulus, type Stimulus } from '../../core/question'
import { brokenItem, readItem, UnreadableFile, type Bundle } from '../bundle'
import type { OutgoingQuestion } from '../format'

/** Thistle's own file of questions. `version` grows when its shape changes; older ones stay readable. */
const entry = z.strictObject({
  id: z.string().max(80),
  folder: z.array(z.string().max(120)).max(10).default([]),
  objectives: z.array(z.string().max(220)).max(10).default([]),
  question,
})
export const thistleFile = z.strictObject({
  format: z.literal('thistle-questions'),
  version: z.literal(1),
  questions: z.array(entry).max(20_000),
  /** What questions share, by the ids that they name. */
  stimuli: z.record(z.string().max(80), stimulus).default({}),
  /** By the digest in their addresses (/api/media/…), as base64. */
  media: z.record(z.string().max(200), z.string()).default({}),
})

/** The JSON Schema of the file, from the same description that reads it. */
export const thistleFileSchema = () => z.toJSONSchema(thistleFile, { io: 'input', unrepresentable: 'any' })

const base64 = (bytes: Uint8Array) => btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''))
const bytesOf = (text: string) => Uint8Array.from(atob(text), (character) => character.charCodeAt(0))

export function writeThistle(
  questions: readonly OutgoingQuestion[],
  media: ReadonlyMap<string, Uint8Array>,
  stimuli: ReadonlyMap<string, Stimulus> = new Map(),
): string {
  return JSON.stringify(
    {
      format: 'thistle-questions',
      version: 1,
      questions: questions.map((each) => ({ ...each, question: { ...each.question, objectives: [] } })),
      stimuli: Object.fromEntries(stimuli),
      media: Object.fromEntries([...media].map(([name, bytes]) => [name, base64(bytes)])),
    },
    null,
    2,
  )
}

export function readThistle(source: string): Bundle {
  let read: unknown
  try {
    read = JSON.parse(source)
  } catch {
    throw new UnreadableFile('This is not JSON that can be read.')
  }
  const head = z
    .object({
      format: z.string(),
      version: z.number(),
      questions: z.array(z.unknown()).max(20_000, 'A file has at most 20,000 questions.'),
      media: z.record(z.string(), z.string()).default({}),
      stimuli: z.record(z.string(), stimulus).default({}),
    })
    .safeParse(read)
  if (!head.success && head.error.issues[0]?.path[0] === 'stimuli')
    throw new UnreadableFile(`A stimulus cannot be read: ${head.error.issues[0].message}`)
  if (!head.success || head.data.format !== 'thistle-questions')
    throw new UnreadableFile('This JSON is not a file of questions: it lacks "format": "thistle-questions".')
  if (head.data.version !== 1)
    throw new UnreadableFile(`This file has version ${head.data.version}; this Thistle reads version 1.`)
  return {
    media: new Map(Object.entries(head.data.media).map(([name, text]) => [name, bytesOf(text)])),
    stimuli: new Map(Object.entries(head.data.stimuli)),
    tests: [],
    items: head.data.questions.map((raw, i) => {
      const place = `question ${i + 1}`
      const found = entry.safeParse(raw)
      if (!found.success)
        return brokenItem(place, found.error.issues[0]?.message ?? 'This question cannot be read.', {
          notes: [found.error.issues[0]?.path.join(' › ') ?? ''].filter(Boolean),
        })
      const { id, folder, objectives } = found.data
      return readItem(place, completed(found.data.question), {
        outsideId: id,
        folder,
        objectives,
        stimulus: found.data.question.stimulus,
      })
    }),
  }
}
