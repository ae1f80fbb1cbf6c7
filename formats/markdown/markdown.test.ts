/** Keys of Markdown are never guessed; what it cannot say is told; long texts take no longer than they are long. */
import { describe, expect, it } from 'vitest'
import { sampleQuestion } from '../../tests/fixtures/core'
import { kindOf, type Question } from '../../core/question'
import { readMarkdown } from './read'
import { unseenInMarkdown, writeMarkdown } from './write'

const one = (source: string) => readMarkdown(source).items[0]!
const keyOf = (source: string) => {
  const { problem, question } = one(source)
  return problem ?? kindOf(question!.kind).keyText(question!.body as never)
}

describe('a key', () => {
  it.each<[string, string | RegExp]>([
    ['= 4', '4'],
    ['= −4', '−4'],
    ['= +4', '4'],
    ['= 3.9 ± 0.1 m', '3.9 ± 0.1 m'],
    ['= 3.9 +/- 0.1', '3.9 ± 0.1'],
    ['= 3,9 ± 2 %', '3.9 ± 2 %'],
    ['= 45 %', '45 %'],
    ['= 1.852', '1.852'],
    ['= 0,125', '0.125'],
    ['= 1.5e3', '1500'],
    ['= 5 | 6', '5 or 6'],
    ['= 1,852', /can be read in two ways/],
    ['= 1 000', /can be read in two ways/],
    ['= 1.852 | 2,5', /can be read in two ways beside decimal commas/],
    ['= 5 to 7', '6 (from 5, up to 7)'],
    ['= between 0.5 and 2 m', '1.25 (from 0.5, up to 2) m'],
    ['= > 5', '6 (above 5)'],
    ['= at most 10 %', '10 (up to 10) %'],
    ['= 1.5 × 10^8 km', '150000000 km'],
    ['= 6.02e23', '6.02 × 10²³'],
    ['= 1.6 x 10⁻¹⁹ ± 1 %', '1.6 × 10⁻¹⁹ ± 1 %'],
    ['= 7 to 5', /ends before it begins/],
    ['= 2 x 3', /a computation, or a text/],
    ['= 3 + 4', /a computation, or a text/],
    ['= "2 x 3"', '2 x 3'],
    ['= 4 and 5', /both, or either/],
    ['= > some', /Write a sign and a number/],
    ['= True', 'True'],
    ['= no', 'No'],
    ['= 1,000,000', /is not a plain number/],
    ['= 5 m | 6 km', /have different units/],
    ['= 3.9 ± some', /is not understood/],
    ['= 10:30', '10:30'],
    ['= 1/2', '1/2'],
    ['= 2030-05-14', '2030-05-14'],
    ['= ebb | ebb tide', 'ebb or ebb tide'],
    ['= C# | C\\*', 'C# or C*'],
    ['- [x] ebb\n- [ ] flood', 'ebb'],
    ['- [X] ebb\n- [x] slack\n- [ ] flood', 'ebb · slack'],
    ['* [ ] ebb\n* [x] flood', 'flood'],
    ['1. ebb\n2. flood', /Nothing says which of its options is right/],
    ['1. ebb\n2. flood\n\n= in this order', 'ebb → flood'],
    ['- ebb\n- flood', /Nothing says which of its options is right/],
    ['- [ x ] ebb\n- [  ] flood', /Nothing says which of its options is right/],
    ['| | |\n|---|---|\n| Port | red |\n| Starboard | green |', /If the table is a matching, say so/],
    ['| | |\n|---|---|\n| Port | red |\n| Starboard | green |\n\n= in these pairs', 'Port – red · Starboard – green'],
    ['| a | b | c |\n|---|---|---|\n| 1 | 2 | 3 |', /There is no answer/],
  ])('%s', (answer, expected) => {
    const found = keyOf(`Which?\n\n${answer}`)
    if (typeof expected === 'string') expect(found).toBe(expected)
    else expect(found).toMatch(expected)
  })
  it('what is left out, or may be meant otherwise, is told', () => {
    expect(one('Which?\n\n- [x] ebb\n- flood').notes.join()).toMatch(/some options have no box/)
    expect(one('Which?\n\n= 4\n\n= 5').notes.join()).toMatch(/second answer/)
    expect(one('Match.\n\n| Term | Meaning |\n|---|---|\n| ebb | falling |').notes.join()).toMatch(
      /first line of its table is a pair like the others/,
    )
    expect(one('See ![a chart](chart.png)\n\n= 4').notes.join()).toMatch(/picture/i)
    expect(one('A <b>bold</b> word\n\n= 4').notes.join()).toMatch(/HTML within a line stands as it was typed/)
  })
})

describe('maths', () => {
  it.each([
    ['$\\frac{3}{12}$', '\\frac{3}{12}'],
    ['$a_1 * b_2 * c$', 'a_1 * b_2 * c'],
    ['$\\{x \\mid x < 3\\}$', '\\{x \\mid x < 3\\}'],
    ['$\\\\ \\_$', '\\\\ \\_'],
  ])('%s keeps its backslashes, stars and lines', (source, tex) => {
    expect(one(`What is ${source}?\n\n= 4`).question!.stem).toContain(`data-latex="${tex}"`)
  })
  it('prices are none', () => {
    for (const words of ['It costs $5 or $6.', 'Between $5 and $10, $15 in all', 'US$ 5'])
      expect(one(`${words}\n\n= 4`).question!.stem).toContain(words)
  })
})

describe('long texts', () => {
  const questions = (n: number) =>
    Array.from(
      { length: n },
      (_, i) => `## Folder ${i % 7}\n\nQuestion ${i}: what *falls* for $x_${i}$?\n\n- [x] ebb\n- [ ] flood\n`,
    )
  it('take twice as long for twice as much', () => {
    const used = (source: string) => {
      const before = process.cpuUsage()
      readMarkdown(source)
      return process.cpuUsage(before).user
    }
    const [short, long] = [questions(200).join('\n---\n'), questions(1600).join('\n---\n')]
    used(short)
    // Eight times as much; with the square of it, sixty-four times. A machine that is busy with something else takes a few.
    expect(used(long)).toBeLessThan(30 * used(short))
  })
  it('1,000 questions come in, each in its folder', () => {
    const { items } = readMarkdown(questions(1000).join('\n---\n'))
    expect(items).toHaveLength(1000)
    expect(items.every(({ question, problem }) => question && problem === null)).toBe(true)
    expect(items[999]!.folder).toEqual(['Folder 5'])
  })
})

describe('written', () => {
  const out = (question: Question, folder = ['Tides']) => ({ id: 'q', folder, objectives: [], question })
  it('comes back equal, in its folders, with comments on options', () => {
    const question = sampleQuestion('choice', {
      stem: '<p>What <strong>falls</strong> for <span data-type="inline-math" data-latex="x_1"></span>?</p>',
      comments: { right: '', wrong: '', general: '<p>At new moon.</p>' },
    })
    const text = writeMarkdown([out(question, ['Tides', 'Springs']), out(sampleQuestion('number'), ['Lights'])])
    const { items } = readMarkdown(text)
    expect(items.map(({ folder }) => folder)).toEqual([['Tides', 'Springs'], ['Lights']])
    const [back] = items
    expect(back!.question).toMatchObject({ stem: question.stem, comments: question.comments })
    expect((back!.question!.body as { options: { comment: string }[] }).options[0]!.comment).toBe(
      '<p>SECRET-comment-a</p>',
    )
  })
  it.each<[string, Question, RegExp | null]>([
    ['what it has words for', sampleQuestion('choice'), null],
    ['kinds without words', sampleQuestion('spot'), /no words for a question of its kind/],
    ['bounds of a number', withNear({ by: 'between', below: '1', above: '2', open: 'none' }), /how near it has to be/],
    ['figures of a number', withNear({ by: 'figures', digits: 3 }), /does not read back/],
    [
      'comments for right and wrong',
      sampleQuestion('choice', { comments: { right: '<p>a</p>', wrong: '', general: '' } }),
      /comments for right/,
    ],
    [
      'pictures',
      sampleQuestion('choice', { stem: `<p><img src="/api/media/${'a'.repeat(64)}" alt="A"></p>` }),
      /pictures/,
    ],
  ])('%s', (_name, question, told) => {
    const found = unseenInMarkdown(question).join('; ')
    if (told) expect(found).toMatch(told)
    else expect(found).toBe('')
  })
})

function withNear(near: Extract<Question, { kind: 'number' }>['body']['answers'][number]['near']): Question {
  const base = sampleQuestion('number') as Extract<Question, { kind: 'number' }>
  return { ...base, body: { ...base.body, answers: [{ ...base.body.answers[0]!, near }] } }
}
