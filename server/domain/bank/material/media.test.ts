import { describe, expect, it } from 'vitest'
import { mediaFault, mediaId, mediaLimits, sniff } from './media'

const bytes = (...parts: (string | number[])[]) =>
  Buffer.concat(parts.map((part) => (typeof part === 'string' ? Buffer.from(part, 'latin1') : Buffer.from(part))))
const png = bytes([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])

describe('types are read from the bytes (signatures of the standards named in media.ts)', () => {
  it.each([
    ['image/png', png],
    ['image/jpeg', bytes([0xff, 0xd8, 0xff, 0xe0])],
    ['image/gif', bytes('GIF89a')],
    ['image/webp', bytes('RIFF', [0, 0, 0, 0], 'WEBP')],
    ['audio/wav', bytes('RIFF', [0, 0, 0, 0], 'WAVE')],
    ['audio/ogg', bytes('OggS')],
    ['audio/mpeg', bytes('ID3')],
    ['audio/mpeg', bytes([0xff, 0xfb, 0x90])],
    ['audio/mp4', bytes([0, 0, 0, 24], 'ftypM4A ')],
    ['video/mp4', bytes([0, 0, 0, 24], 'ftypisom')],
    ['video/webm', bytes([0x1a, 0x45, 0xdf, 0xa3], 'xx V_VP9')],
    ['audio/webm', bytes([0x1a, 0x45, 0xdf, 0xa3], 'xx A_OPUS')],
    ['application/pdf', bytes('%PDF-1.7')],
  ])('%s', (type, file) => expect(sniff(file)?.type).toBe(type))
  it.each([
    ['a page', '<!doctype html><script>x</script>'],
    ['a drawing with script', '<svg xmlns="http://www.w3.org/2000/svg"><script/></svg>'],
    ['a document of another sort', '{\\rtf1'],
    ['a document with something before it', ' %PDF-1.7'],
    ['a program', 'MZ\x90'],
    ['an archive', 'PK\x03\x04'],
    ['a beginning cut short', '\x89PN'],
    ['nothing', ''],
  ])('%s is none of them', (_what, text) => {
    expect(sniff(Buffer.from(text, 'latin1'))).toBeUndefined()
    expect(mediaFault(Buffer.from(text, 'latin1'))).not.toBeNull()
  })
})

describe('what may be kept', () => {
  it('a picture of four megabytes, not one byte more', () => {
    const sized = (size: number) => Buffer.concat([png, Buffer.alloc(size - png.length)])
    expect(mediaFault(sized(mediaLimits.picture))).toBeNull()
    expect(mediaFault(sized(mediaLimits.picture + 1))).toMatchObject({
      status: 413,
      sentence: expect.stringMatching(/at most 4 MB/) as string,
    })
  })
  it('only what is asked for: no picture as a recording', () => {
    expect(mediaFault(png, ['sound'])).toMatchObject({
      status: 415,
      sentence: expect.stringMatching(/not a WAVE/) as string,
    })
    expect(mediaFault(Buffer.alloc(0))).toMatchObject({ status: 422 })
  })
  it('the same bytes have the same address in one school, and another in the next', () => {
    expect(mediaId('a', png)).toBe(mediaId('a', Buffer.from(png)))
    expect(mediaId('a', png)).not.toBe(mediaId('b', png))
    expect(mediaId('a', png)).toMatch(/^[0-9a-f]{64}$/)
  })
})
