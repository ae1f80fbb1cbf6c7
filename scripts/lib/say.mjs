// Where nobody reads any more what is said, saying it is no fault.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {})

export function say(line) {
  console.log(line)
}

/** Something that the person at the terminal has to mend, in one sentence. */
export class CannotGoOn extends Error {
  name = 'CannotGoOn'
}

/** One sentence for the person at the terminal, then the end: for scripts that hold nothing open. */
export function stopWith(sentence) {
  console.error(`\n${sentence}\n`)
  process.exit(1)
}
