/** Papers of 50 questions with 6 pools, compiled in core. */
import { compilePaper } from '../core/paper'
import { names, poolRow, questionRow, sampleContent, sampleEdition } from '../tests/fixtures/core'

const rows = [
  ...names('fixed', 20).map((id) => questionRow(id)),
  ...names('pool', 6).map((id, i) => poolRow(id, names(`${id}-q`, 20), 5, { points: i + 1 })),
]
const content = sampleContent(rows)
content.sections[0]!.order = 'shuffled'
const edition = sampleEdition(content)

function run(papers: number, prefix: string): number {
  const began = performance.now()
  for (let i = 0; i < papers; i++) {
    if (compilePaper(edition, `${prefix}${i}`, 1, []).items.length !== 50)
      throw new Error('A paper has not 50 questions.')
  }
  return papers / ((performance.now() - began) / 1000)
}

run(3000, 'warm')
console.log(JSON.stringify({ 'paper.compile': { value: Math.round(run(20_000, 's')), unit: 'papers/s' } }))
