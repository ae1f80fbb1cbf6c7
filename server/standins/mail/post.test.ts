/** Letters as a mail server receives them, read by another library than the one that wrote them (RFC 5321, RFC 5322). */
import PostalMime from 'postal-mime'
import { SMTPServer } from 'smtp-server'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { bySmtp } from './post'
import type { Post } from './mail'

const received: { to: string[]; raw: string }[] = []
let refuse = false
const server = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS', 'AUTH'],
  logger: false,
  onData(stream, session, done) {
    const parts: Buffer[] = []
    stream.on('data', (part: Buffer) => parts.push(part))
    stream.on('end', () => {
      if (refuse) return done(Object.assign(new Error('Mailbox is full'), { responseCode: 452 }))
      received.push({ to: session.envelope.rcptTo.map(({ address }) => address), raw: Buffer.concat(parts).toString() })
      done()
    })
  },
})
let post: Post
beforeAll(async () => {
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  const { port } = server.server.address() as { port: number }
  post = await bySmtp(`smtp://127.0.0.1:${port}`, 'Kelp Lane School <quiz@kelp.example>')
})
afterAll(() => new Promise<void>((done) => server.close(done)))

it('arrives as it was written, in any script, to its one address', async () => {
  const letter = {
    to: 'zoe@kelp.example',
    subject: 'Willkommen, Zoë · مرحبا',
    body: 'Hello 𠮷田,\n\n.a line that begins with a dot\n\nhttps://quiz.example/come-in/abc\n',
  }
  await post(letter)
  const { to, raw } = received.at(-1)!
  const read = await PostalMime.parse(raw)
  expect(to).toEqual(['zoe@kelp.example'])
  expect([read.from!.address, read.to!.map(({ address }) => address), read.subject]).toEqual([
    'quiz@kelp.example',
    ['zoe@kelp.example'],
    letter.subject,
  ])
  expect(read.text!.trimEnd()).toBe(letter.body.trimEnd())
})

it('a subject with lines of its own adds no header and no address', async () => {
  await post({ to: 'a@kelp.example', subject: 'Hello\r\nBcc: everybody@kelp.example\r\n\r\nother', body: 'x' })
  const { to, raw } = received.at(-1)!
  const read = await PostalMime.parse(raw)
  expect(to).toEqual(['a@kelp.example'])
  expect(read.headers.map(({ key }) => key)).not.toContain('bcc')
  expect(read.text!.trim()).toBe('x')
})

it('what the server refuses is a fault that says so', async () => {
  refuse = true
  await expect(post({ to: 'a@kelp.example', subject: 's', body: 'b' })).rejects.toThrow(/Mailbox is full/)
  refuse = false
  const nobody = await bySmtp('smtp://127.0.0.1:1', 'x@kelp.example')
  await expect(nobody({ to: 'a@kelp.example', subject: 's', body: 'b' })).rejects.toThrow(/ECONNREFUSED/)
})
