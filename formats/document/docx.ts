import mammoth from 'mammoth'
import { digestOf, UnreadableFile, type Bundle } from '../bundle'
import { decodeXml } from '../text'
import { stored, unzip } from '../zip'
import { withoutEquations } from './equations'
import { questionsFromHtml } from './html'

const main = 'word/document.xml'

/** The file without packing, for a reader that unpacks by itself, and with equations marked where they stand. @throws UnreadableFile */
function prepared(bytes: Uint8Array): Buffer {
  const files = new Map(unzip(bytes))
  const found = files.get(main)
  if (found) files.set(main, new TextEncoder().encode(withoutEquations(decodeXml(found))))
  return Buffer.from(stored(files))
}

const ignored = /unrecognised element was ignored: (?:\{[^}]*\})?([\w:]+)/

/** A word processor's file (Office Open XML) as questions, with its pictures. @throws UnreadableFile */
export async function readDocx(bytes: Uint8Array): Promise<Bundle> {
  const buffer = prepared(bytes)
  const media = new Map<string, Uint8Array>()
  try {
    const { value, messages } = await mammoth.convertToHtml(
      { buffer },
      {
        convertImage: mammoth.images.imgElement(async (image) => {
          const found = new Uint8Array(await image.readAsArrayBuffer())
          const digest = digestOf(found)
          media.set(digest, found)
          return { src: `/api/media/${digest}` }
        }),
      },
    )
    const items = questionsFromHtml(value)
    const left = new Set(messages.flatMap(({ message }) => ignored.exec(message)?.[1] ?? []))
    if (left.size && items[0])
      items[0].notes.push(
        `Some things of the document are not read and are left out (${[...left].slice(0, 8).join(', ')}).`,
      )
    return { items, media, stimuli: new Map(), tests: [] }
  } catch (error) {
    if (error instanceof UnreadableFile) throw error
    throw new UnreadableFile(
      'This document cannot be read. Open it in a word processor, save it anew as .docx, and try again.',
    )
  }
}
