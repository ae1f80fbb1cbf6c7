import { JSONParser } from '@streamparser/json'
import { z } from 'zod'
import { kindLabels } from '../../core/question/kinds'
import { completed, question, stimulus, type Stimulus } from '../../core/question'
import { base64Length, bytesOfBase64, putBase64 } from '../base64'
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

const encoder = new TextEncoder()

/** The file as bytes: what is said first, then the media, each straight into its place. */
export function writeThistle(
  questions: readonly OutgoingQuestion[],
  media: ReadonlyMap<string, Uint8Array>,
  stimuli: ReadonlyMap<string, Stimulus> = new Map(),
): Uint8Array {
  const said = JSON.stringify(
    {
      format: 'thistle-questions',
      version: 1,
      questions: questions.map((each) => ({ ...each, question: { ...each.question, objectives: [] } })),
      stimuli: Object.fromEntries(stimuli),
    },
    null,
    2,
  )
  const head = encoder.encode(`${said.slice(0, -2)},\n  "media": {`)
  const entries = [...media].map(([name, bytes], i) => ({
    bytes,
    name: encoder.encode(`${i ? ',' : ''}\n    ${JSON.stringify(name)}: "`),
  }))
  const close = encoder.encode('"')
  const tail = encoder.encode('\n  }\n}')
  const size = entries.reduce(
    (sum, { bytes, name }) => sum + name.length + base64Length(bytes.length) + close.length,
    head.length + tail.length,
  )
  const whole = new Uint8Array(size)
  whole.set(head)
  let at = head.length
  for (const { bytes, name } of entries) {
    whole.set(name, at)
    at = putBase64(bytes, whole, at + name.length)
    whole.set(close, at)
    at += close.length
  }
  whole.set(tail, at)
  return whole
}

const notRead = 'This is not JSON that can be read.'
const most = 20_000

/** What a file says, one value after another, so that its media are never held as text together. */
interface Gathered {
  format: unknown
  version: unknown
  questions: unknown[]
  stimuli: unknown
  media: Map<string, Uint8Array>
  isFile: boolean
}

function gathered(bytes: Uint8Array): Gathered {
  const found: Gathered = { format: null, version: null, questions: [], stimuli: {}, media: new Map(), isFile: false }
  const parser = new JSONParser({
    paths: ['$.format', '$.version', '$.questions.*', '$.stimuli', '$.media.*'],
    keepStack: false,
    // A picture's text in one piece: of many small ones it would be put together again, which takes it twice.
    stringBufferSize: Math.max(64, Math.min(bytes.length, 8 * 1024 * 1024)),
  })
  parser.onValue = ({ value, key, stack }) => {
    const outer = stack.at(-1)?.key
    if (outer === 'questions') {
      if (found.questions.length >= most) throw new UnreadableFile('A file has at most 20,000 questions. Part it.')
      found.questions.push(value)
    } else if (outer === 'media') {
      const read = typeof value === 'string' ? bytesOfBase64(value) : null
      // What cannot be read is missing: the questions that show it say so.
      if (read) found.media.set(String(key).slice(0, 200), read)
    } else if (key === 'format' || key === 'version' || key === 'stimuli') found[key] = value
  }
  parser.onEnd = () => {
    found.isFile = true
  }
  try {
    const step = 1024 * 1024
    for (let from = 0; from < bytes.length; from += step) parser.write(bytes.subarray(from, from + step))
  } catch (error) {
    if (error instanceof UnreadableFile) throw error
    throw new UnreadableFile(notRead)
  }
  if (!found.isFile) throw new UnreadableFile(notRead)
  return found
}

/** What is wrong first, and where it stands in the file. */
function whatIsWrong(raw: unknown, { issues }: z.ZodError): string {
  const written = (raw as { question?: { kind?: unknown } } | null)?.question?.kind
  if (typeof written === 'string' && !Object.hasOwn(kindLabels, written))
    return `“${written.slice(0, 40)}” is not a kind of question.`
  const [issue] = issues
  if (!issue) return 'This question cannot be read.'
  return issue.path.length ? `${issue.path.join(' › ')}: ${issue.message}` : issue.message
}

/** @throws UnreadableFile */
export function readThistle(bytes: Uint8Array): Bundle {
  const { format, version, questions, stimuli: written, media } = gathered(bytes)
  if (format !== 'thistle-questions')
    throw new UnreadableFile('This JSON is not a file of questions: it lacks "format": "thistle-questions".')
  if (version !== 1) throw new UnreadableFile(`This file has version ${String(version)}; this Thistle reads version 1.`)
  const stimuli = z.record(z.string(), stimulus).safeParse(written)
  if (!stimuli.success) {
    const [issue] = stimuli.error.issues
    throw new UnreadableFile(`A stimulus cannot be read (${issue!.path.join(' › ')}): ${issue!.message}`)
  }
  if (!questions.length) throw new UnreadableFile('This file holds no questions: “questions” is empty, or not a list.')
  return {
    media,
    stimuli: new Map(Object.entries(stimuli.data)),
    tests: [],
    items: questions.map((raw, i) => {
      const place = `question ${i + 1}`
      const found = entry.safeParse(raw)
      if (!found.success) return brokenItem(place, whatIsWrong(raw, found.error))
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
