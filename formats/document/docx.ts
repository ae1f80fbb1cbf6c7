import mammoth from 'mammoth'
import { digestOf, UnreadableFile, type Bundle } from '../bundle'
import { unpacked } from '../zip'
import { questionsFromHtml } from './html'

/** A word processor's file (Office Open XML) as questions, with its pictures. @throws UnreadableFile */
export async function readDocx(bytes: Uint8Array): Promise<Bundle> {
  const plain = Buffer.from(unpacked(bytes))
  const media = new Map<string, Uint8Array>()
  try {
    const { value } = await mammoth.convertToHtml(
      { buffer: plain },
      {
        convertImage: mammoth.images.imgElement(async (image) => {
          const found = new Uint8Array(await image.readAsArrayBuffer())
          const digest = digestOf(found)
          media.set(digest, found)
          return { src: `/api/media/${digest}` }
        }),
      },
    )
    return { items: questionsFromHtml(value), media, stimuli: new Map(), tests: [] }
  } catch (error) {
    if (error instanceof UnreadableFile) throw error
    throw new UnreadableFile(
      'This document cannot be read. Open it in a word processor, save it anew as .docx, and try again.',
    )
  }
}
