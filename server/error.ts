import { defineNitroErrorHandler } from 'nitropack/runtime'

/** What no route answered: problem details for the API, a short page for the rest, never a stack. */
export default defineNitroErrorHandler((error, event) => {
  const status = error.statusCode && error.statusCode < 500 ? error.statusCode : 500
  const detail =
    status === 404
      ? 'There is nothing at this address.'
      : status < 500
        ? 'This request cannot be carried out.'
        : 'Something failed on our side. Try again.'
  if (status === 500) console.error(error)
  event.node.res.statusCode = status
  event.node.res.setHeader('content-type', 'application/problem+json')
  event.node.res.end(JSON.stringify({ type: 'about:blank', title: String(status), status, detail }))
})
