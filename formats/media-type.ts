export type MediaKind = 'picture' | 'sound' | 'film' | 'document'

/** What bytes are: their kind, media type, and the usual ending of such files. */
export interface MediaType {
  kind: MediaKind
  type: string
  ending: string
}

const latin = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to))
const begins =
  (...start: number[]) =>
  (bytes: Uint8Array) =>
    start.every((byte, i) => bytes[i] === byte)
/** ISO base media (ISO/IEC 14496-12): a box "ftyp" first, with its brand. */
const isoBrand = (bytes: Uint8Array) => (latin(bytes, 4, 8) === 'ftyp' ? latin(bytes, 8, 12) : '')
const isMatroska = begins(0x1a, 0x45, 0xdf, 0xa3)
/** A Matroska video track says so by its codec id (RFC 9559). */
const hasVideoTrack = (bytes: Uint8Array) =>
  /V_(?:VP[89]|AV1|MPEG4)/.test(new TextDecoder('latin1').decode(bytes.subarray(0, 64 * 1024)))

/**
 * Signatures of the types that are taken: PNG (ISO/IEC 15948), JPEG (ISO/IEC 10918), GIF89a, WebP (RFC 9649); WAVE, Ogg
 * (RFC 3533), MP3 (ISO/IEC 11172-3, or an ID3 head), MP4 (ISO/IEC 14496-12) and WebM for sound and film;
 * PDF (ISO 32000).
 */
const signatures: (MediaType & { matches: (bytes: Uint8Array) => boolean })[] = [
  {
    kind: 'picture',
    type: 'image/png',
    ending: 'png',
    matches: begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a),
  },
  { kind: 'picture', type: 'image/jpeg', ending: 'jpg', matches: begins(0xff, 0xd8, 0xff) },
  {
    kind: 'picture',
    type: 'image/gif',
    ending: 'gif',
    matches: (bytes) => ['GIF87a', 'GIF89a'].includes(latin(bytes, 0, 6)),
  },
  {
    kind: 'picture',
    type: 'image/webp',
    ending: 'webp',
    matches: (bytes) => latin(bytes, 0, 4) === 'RIFF' && latin(bytes, 8, 12) === 'WEBP',
  },
  {
    kind: 'sound',
    type: 'audio/wav',
    ending: 'wav',
    matches: (bytes) => latin(bytes, 0, 4) === 'RIFF' && latin(bytes, 8, 12) === 'WAVE',
  },
  { kind: 'sound', type: 'audio/ogg', ending: 'ogg', matches: (bytes) => latin(bytes, 0, 4) === 'OggS' },
  {
    kind: 'sound',
    type: 'audio/mpeg',
    ending: 'mp3',
    matches: (bytes) => latin(bytes, 0, 3) === 'ID3' || (bytes[0] === 0xff && (bytes[1]! & 0xe6) === 0xe2),
  },
  { kind: 'sound', type: 'audio/mp4', ending: 'm4a', matches: (bytes) => isoBrand(bytes).startsWith('M4A') },
  { kind: 'film', type: 'video/mp4', ending: 'mp4', matches: (bytes) => isoBrand(bytes) !== '' },
  {
    kind: 'film',
    type: 'video/webm',
    ending: 'webm',
    matches: (bytes) => isMatroska(bytes) && hasVideoTrack(bytes),
  },
  { kind: 'sound', type: 'audio/webm', ending: 'webm', matches: isMatroska },
  { kind: 'document', type: 'application/pdf', ending: 'pdf', matches: (bytes) => latin(bytes, 0, 5) === '%PDF-' },
]

/** What bytes are, or undefined for what is not taken. */
export function mediaTypeOf(bytes: Uint8Array): MediaType | undefined {
  return signatures.find(({ matches }) => matches(bytes))
}
