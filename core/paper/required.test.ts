import { describe, expect, it } from 'vitest'
import { groupRow, poolRow, questionRow, sampleContent, sampleEdition } from '../../tests/fixtures/core'
import { compilePaper } from './compile'
import { requiredMissing } from './required'
import { sealPaper } from './seal'

const content = sampleContent(
  [
    questionRow('a'),
    questionRow('b', { required: true }),
    poolRow('p', ['c', 'd', 'e'], 2, { required: true }),
    groupRow('g', ['f', 'h'], { required: false }),
  ],
  { pages: { by: 'count', count: 2 } },
)
const edition = sampleEdition(content)
const paper = compilePaper(edition, 'p1', 1, [])
const answered = (...numbers: number[]) => new Set(numbers.map((number) => paper.items[number - 1]!.id))

describe('requiredMissing', () => {
  it.each([
    ['nothing is answered', [], Infinity, [2, 3, 4]],
    ['some are', [1, 3], Infinity, [2, 4]],
    ['all that have to be', [2, 3, 4], Infinity, []],
    ['only the first page is left', [], 1, [2]],
    ['only the first two', [2], 2, [3, 4]],
  ])('%s', (_name, done, before, missing) => {
    expect(requiredMissing(content, paper, answered(...done), ({ page }) => page < before)).toEqual(missing)
  })
  it('the sheet says the same of the same numbers', () => {
    const questions = sealPaper(paper, edition).sections[0]!.entries.filter((entry) => entry.type === 'question')
    expect(questions.filter((entry) => entry.required).map((entry) => entry.number)).toEqual([2, 3, 4])
  })
})
