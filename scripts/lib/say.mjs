/** One sentence for the person at the terminal, then the end. */
export function stopWith(sentence) {
  console.error(`\n${sentence}\n`)
  process.exit(1)
}

export function say(line) {
  console.log(line)
}
