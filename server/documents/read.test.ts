/** Forms of stored documents that have landed are read for ever, and stay editable (tests/fixtures/documents). */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { compilePaper, sealPaper } from '../../core/paper'
import { paper as paperSchema } from '../../core/paper/schema'
import { question as questionSchema } from '../../core/question'
import { applyEdit, edition as editionSchema, quiz as quizSchema, rules as rulesSchema, setAt } from '../../core/quiz'
import { markAttempt } from '../../core/marking'
import { toJson } from '../database/codec'
import { readAccommodation, readEdit, readEdition, readPaper, readQuestion, readQuiz, readRules } from './read'
import { noAccommodation } from '../../core/quiz'

const folder = join(import.meta.dirname, '../../tests/fixtures/documents')
const releases = readdirSync(folder)
const kept = (release: string, name: string) =>
  (JSON.parse(readFileSync(join(folder, release, `${name}.json`), 'utf8')) as unknown[]).map((each) => toJson(each))

/** Takes a name out of a document, wherever it stands: a form from before it was added. */
const without = (text: string, name: string) =>
  JSON.stringify(
    JSON.parse(text, function (this: unknown, key, value: unknown) {
      return key === name ? undefined : value
    }),
  )

describe.each(releases)('documents of %s', (release) => {
  it('quizzes are today’s and can be edited, with every rule', () => {
    const texts = kept(release, 'quizzes')
    expect(texts.length).toBeGreaterThan(2)
    for (const text of texts) {
      const quiz = readQuiz(text)
      expect(quizSchema.parse(quiz)).toEqual(quiz)
      expect(applyEdit(quiz, setAt(quiz, ['content', 'title'], 'Edited')).quiz.content.title).toBe('Edited')
      expect(applyEdit(quiz, setAt(quiz, ['rules', 'limit'], 7)).quiz.rules.limit).toBe(7)
    }
  })
  it('versions of rules are today’s', () => {
    for (const text of kept(release, 'rules')) expect(rulesSchema.parse(readRules(text))).toEqual(readRules(text))
  })
  it('editions give papers, which are sealed and marked', () => {
    for (const text of kept(release, 'editions')) {
      const edition = readEdition(text)
      expect(editionSchema.safeParse(edition).error).toBeUndefined()
      const paper = compilePaper(edition, 'student', 1, [])
      expect(sealPaper(paper, edition, null).sections.length).toBeGreaterThan(0)
      expect(markAttempt(edition, paper, {}).marks).toHaveLength(paper.items.length)
    }
  })
  it('papers and questions are today’s', () => {
    for (const text of kept(release, 'papers')) expect(paperSchema.parse(readPaper(text))).toEqual(readPaper(text))
    const questions = kept(release, 'questions')
    expect(questions.length).toBeGreaterThan(13)
    for (const text of questions) expect(questionSchema.safeParse(readQuestion(text)).error).toBeUndefined()
  })
  it('edits are read, or known as of an earlier release', () => {
    for (const text of kept(release, 'edits')) {
      const edit = readEdit(text)
      if (edit) expect(['set', 'add', 'remove', 'move', 'all']).toContain(edit.do)
    }
  })
  it.each(['latestStart', 'due', 'password', 'overrun', 'certificate', 'grace', 'announced', 'fixed', 'wrongCost'])(
    'a quiz from before “%s” was there stays editable',
    (name) => {
      for (const text of kept(release, 'quizzes')) {
        const quiz = readQuiz(without(text, name))
        expect(quizSchema.safeParse(quiz).error).toBeUndefined()
        expect(() => applyEdit(quiz, setAt(quiz, ['rules', 'limit'], 7))).not.toThrow()
      }
    },
  )
})

describe('small documents', () => {
  it('an accommodation that says less than today’s is completed', () => {
    expect(readAccommodation('{"factor":1.5}')).toEqual({
      ...noAccommodation,
      factor: 1.5,
      extraMinutes: 0,
      stretchWindow: false,
    })
    expect(readAccommodation(null)).toMatchObject({ factor: 1 })
  })
  it('a name that is no rule any more does not make a quiz uneditable', () => {
    const [text] = kept(releases[0]!, 'quizzes')
    const old = JSON.parse(text!) as { rules: object; content: object }
    const quiz = readQuiz(toJson({ content: { ...old.content, gone: 1 }, rules: { ...old.rules, goneToo: 2 } }))
    expect(quizSchema.safeParse(quiz).error).toBeUndefined()
  })
})
