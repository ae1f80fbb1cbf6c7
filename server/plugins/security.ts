import { randomBytes } from 'node:crypto'

/** A strict content security policy. The one inline script of the page shell carries a nonce; KaTeX needs style attributes. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('render:html', (html, { event }) => {
    const nonce = randomBytes(16).toString('base64')
    const mark = (part: string) => part.replace(/<script(?=[\s>])/g, `<script nonce="${nonce}"`)
    html.head = html.head.map(mark)
    html.bodyPrepend = html.bodyPrepend.map(mark)
    html.body = html.body.map(mark)
    html.bodyAppend = html.bodyAppend.map(mark)
    setHeader(
      event,
      'content-security-policy',
      [
        "default-src 'none'",
        `script-src 'self' 'nonce-${nonce}'`,
        "style-src 'self'",
        "style-src-attr 'unsafe-inline'",
        "img-src 'self' data:",
        "media-src 'self' blob:",
        "font-src 'self'",
        "connect-src 'self'",
        "worker-src 'self'",
        "manifest-src 'self'",
        "base-uri 'none'",
        "form-action 'self'",
        // Pages of ours stand in the frame of a rehearsal, which is one of ours.
        "frame-src 'self'",
        "frame-ancestors 'self'",
      ].join('; '),
    )
  })
  // What it is made with is nobody's business.
  nitro.hooks.hook('render:response', (response) => {
    delete response.headers?.['x-powered-by']
  })
  nitro.hooks.hook('request', (event) => {
    setHeaders(event, {
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
      'permissions-policy': 'microphone=(self), camera=(self), geolocation=()',
    })
    if (event.path.startsWith('/api/')) setHeader(event, 'cache-control', 'no-store')
  })
})
