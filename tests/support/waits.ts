/** The longest that a health request waits while something else is done, in milliseconds. */
export async function longestWait(address: string, work: Promise<unknown>): Promise<number> {
  let done = false
  const ended = work.finally(() => {
    done = true
  })
  let longest = 0
  while (!done) {
    const began = performance.now()
    await (await fetch(`${address}/api/health`)).text()
    longest = Math.max(longest, performance.now() - began)
    await new Promise((next) => setTimeout(next, 5))
  }
  await ended
  return longest
}
