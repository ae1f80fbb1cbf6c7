/** Where nobody reads any more what is said, saying it is no fault: it would be said for ever that it cannot be said. */
export default defineNitroPlugin(() => {
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {})
})
