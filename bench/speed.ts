/** How fast this machine is at a fixed piece of plain work in the language, in pieces a second: the middle of nine tries. */

/** Words made, counted, sorted and put together again; numbers mixed: what compiling, scoring and reading mostly do. */
function piece(): number {
  let state = 1
  const next = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0)
  const counts = new Map<string, { n: number; parts: number[] }>()
  for (let i = 0; i < 4000; i++) {
    const word = (next() % 900).toString(36)
    const entry = counts.get(word) ?? { n: 0, parts: [] }
    entry.n++
    entry.parts.push(next() % 97)
    counts.set(word, entry)
  }
  const rows = [...counts].map(([word, entry]) => ({ word, ...entry, sum: entry.parts.reduce((a, b) => a + b, 0) }))
  rows.sort((a, b) => b.sum - a.sum || (a.word < b.word ? -1 : 1))
  const text = JSON.stringify(rows)
  return (JSON.parse(text) as typeof rows).reduce((sum, row) => (sum + row.sum * row.word.length) % 1_000_003, 0)
}

function rate(milliseconds: number): number {
  const began = performance.now()
  let done = 0
  let sink = 0
  while (performance.now() - began < milliseconds) {
    sink += piece()
    done++
  }
  if (sink < 0) throw new Error('The work was not done.')
  return done / ((performance.now() - began) / 1000)
}

rate(500)
const tries = Array.from({ length: 9 }, () => rate(200)).sort((a, b) => a - b)
console.log(JSON.stringify({ 'machine.pieces': { value: Math.round(tries[4]!), unit: 'pieces/s' } }))
