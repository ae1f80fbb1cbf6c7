/** What a school sets for itself: grade scales and fields of its students. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { unzip } from '../../formats/zip'
import type { Database } from '../../server/database/database'
import { marksTable } from '../../server/domain/marks/marks'
import { giveOwnData } from '../../server/domain/people/own-data'
import { dropField, keepField, keepValues, listFields, valuesOf } from '../../server/domain/people/own-fields'
import { giveNameBack, makeNameless } from '../../server/domain/people/nameless'
import { dropScale, keepScale, listScales } from '../../server/domain/people/scales'
import { studentPage } from '../../server/domain/people/student-page'
import { changePerson } from '../../server/domain/people/people'
import { checksFor } from '../../server/domain/quizzes/checks'
import { heldNow } from '../../server/domain/quizzes/held'
import { ruleSets } from '../../core/rules/sets'
import { dropSet, keepSet, listSets } from '../../server/domain/quizzes/rule-sets'
import { createQuiz, loadQuiz } from '../../server/domain/quizzes/quizzes'
import { quizView } from '../../server/domain/quizzes/view'
import { reviewFor } from '../../server/domain/reviews/review'
import { handIn } from '../../server/domain/sittings/hand-in'
import { myQuizzes } from '../../server/domain/sittings/my-quizzes'
import { saveAnswers } from '../../server/domain/sittings/save'
import { openSitting } from '../../server/domain/sittings/sitting'
import { startSitting } from '../../server/domain/sittings/start'
import { freshDatabase, person } from '../support/database'
import { day, itemsOf, later, openedQuiz } from '../support/quiz'

let db: Database
beforeAll(async () => {
  db = (await freshDatabase('school', day)).db
})
afterAll(() => db.close())
const maren = () => person(db, 'p-maren')
const nell = 'p-nell-ashdown'
const letters = [
  { from: 60, label: 'B' },
  { from: 0, label: 'C' },
]
describe('a grade scale', () => {
  it('has one name in the school, no gap and no overlap; another school has none of it', async () => {
    const [made] = await keepScale(db, await maren(), { name: 'Letters', bands: letters }, day)
    await expect(keepScale(db, await maren(), { name: 'LETTERS', bands: letters }, day)).rejects.toThrow(/this name/)
    await db.run("INSERT INTO school (id, name, zone) VALUES ('far', 'Far', 'UTC')")
    const far = { ...(await maren()), school: 'far' }
    expect(await listScales(db, 'far')).toEqual([])
    await expect(keepScale(db, far, { name: 'Mine', bands: letters }, day, made!.id)).rejects.toMatchObject({
      status: 404,
    })
    await expect(dropScale(db, far, made!.id, day)).rejects.toMatchObject({ status: 404 })
    expect(await listScales(db, 'gannet')).toEqual([{ id: made!.id, name: 'Letters', bands: letters }])
  })
  it('tells the grade wherever it is shown, the same; a quiz keeps its bands, and its checks tell of others', async () => {
    const { id, name } = (await listScales(db, 'gannet'))[0]!
    const quiz = await openedQuiz(db, 'scaled', {
      grade: {
        method: 'highest',
        decimals: 1,
        pass: null,
        scale: { by: 'bands', id, name, bands: letters },
        sections: [],
      },
    })
    const student = await person(db, nell)
    const { attempt } = await startSitting(db, student, quiz, { device: 'd1' }, day)
    const { lease } = await openSitting(db, nell, attempt, 'd1', day)
    const { item } = (await itemsOf(db, attempt))['q-clearing']!
    await saveAnswers(db, nell, attempt, lease, [{ item, seq: 1, response: { text: 'no' }, flagged: false }], later(1))
    await handIn(db, nell, attempt, lease, [], later(2))
    const mine = (await myQuizzes(db, student, later(3))).quizzes.find((each) => each.id === quiz)
    expect(mine!.grade).toEqual({ text: 'C', passed: null })
    expect((await reviewFor(db, student, attempt, later(3))).grade!.text).toBe('C')
    const [row] = (await marksTable(db, quiz, later(3))).students.filter((each) => each.id === nell)
    expect(row).toMatchObject({ percent: '0.0', text: 'C' })
    const page = await studentPage(db, await maren(), nell, later(3))
    expect(page.quizzes.find((each) => each.id === quiz)!.grade!.text).toBe('C')

    await keepScale(db, await maren(), { name, bands: [...letters, { from: 90, label: 'A' }] }, day, id)
    expect((await reviewFor(db, student, attempt, later(4))).grade!.text).toBe('C')
    const loaded = await loadQuiz(db, quiz)
    const found = await checksFor(db, await maren(), loaded, await heldNow(db, loaded), later(4))
    expect(found.find(({ code }) => code === 'scale-changed')!.sentence).toContain('Letters')
    expect((await quizView(db, await maren(), quiz, later(4))).scales[0]!.bands).toHaveLength(3)
    await dropScale(db, await maren(), id, day)
    expect((await reviewFor(db, student, attempt, later(5))).grade!.text).toBe('C')
  })
})

describe('a field of the school’s own', () => {
  it('is kept of students; its values come back with it; its sort stays', async () => {
    const [house] = await keepField(db, await maren(), { name: 'House', sort: 'choice', choices: ['Red', 'Blue'] }, day)
    const number = (await keepField(db, await maren(), { name: 'Number', sort: 'number', choices: [] }, day)).find(
      ({ name }) => name === 'Number',
    )!
    expect(await keepValues(db, await maren(), nell, { [house!.id]: 'Red', [number.id]: '3,5' }, day)).toEqual({
      [house!.id]: 'Red',
      [number.id]: '3.5',
    })
    await expect(keepValues(db, await maren(), nell, { [house!.id]: 'Blue', [number.id]: 'x' }, day)).rejects.toThrow(
      /is a number/,
    )
    expect((await valuesOf(db, [nell])).get(nell)![house!.id]).toBe('Red')
    await expect(keepValues(db, await maren(), nell, { nothing: '1' }, day)).rejects.toThrow(/not there any more/)
    await expect(
      keepField(db, await maren(), { name: 'House', sort: 'text', choices: [] }, day, house!.id),
    ).rejects.toThrow(/stays of its sort/)
    await dropField(db, await maren(), house!.id, day)
    expect((await valuesOf(db, [nell])).get(nell)).toEqual({ [number.id]: '3.5' })
    await keepField(db, await maren(), { name: 'house', sort: 'choice', choices: ['Red', 'Blue'] }, day)
    expect((await valuesOf(db, [nell])).get(nell)![house!.id]).toBe('Red')
    expect((await listFields(db, 'gannet')).map(({ name }) => name)).toEqual(['house', 'Number'])
    const lines = await db.rows<{ detail: string }>("SELECT detail FROM record WHERE what = 'own fields set'")
    expect(JSON.stringify(lines)).not.toContain('Red')
  })
  it('is given to who it is about, goes when they are made nameless, and comes back with their name', async () => {
    const given = await giveOwnData(db, await maren(), nell, day)
    const data = JSON.parse(new TextDecoder().decode(unzip(given.bytes).get('data.json'))) as {
      person: { fields: object }
    }
    expect(data.person.fields).toEqual({ house: 'Red', Number: '3.5' })
    await changePerson(db, await maren(), nell, { state: 'left' }, day)
    await makeNameless(db, await maren(), nell, day)
    expect((await valuesOf(db, [nell])).size).toBe(0)
    await giveNameBack(db, await maren(), nell, day)
    expect(Object.values((await valuesOf(db, [nell])).get(nell)!).sort()).toEqual(['3.5', 'Red'])
  })
})

describe('a set of rules', () => {
  const set = { name: 'Friday test', words: '', rules: ruleSets[2]!.rules, shared: false, usual: false }
  it('is its teacher’s, until it is shared; others start from it and cannot change it', async () => {
    const idris = await person(db, 'p-idris')
    const [made] = await keepSet(db, await maren(), set, day)
    expect(await listSets(db, idris)).toEqual([])
    await keepSet(db, await maren(), { ...set, shared: true }, day, made!.id)
    expect(await listSets(db, idris)).toMatchObject([{ name: 'Friday test', mine: false, by: 'Maren Holt' }])
    await expect(keepSet(db, idris, set, day, made!.id)).rejects.toMatchObject({ status: 404 })
    await expect(dropSet(db, idris, made!.id, day)).rejects.toMatchObject({ status: 404 })
    await expect(keepSet(db, await maren(), { ...set, name: 'FRIDAY test' }, day)).rejects.toThrow(/this name/)
    expect(await listSets(db, { id: 'p-far', school: 'far' })).toEqual([])
  })
  it('begins new quizzes of who says so, and no copy', async () => {
    const rules = { ...set.rules, limit: 77 }
    await keepSet(db, await maren(), { ...set, name: 'Mine', rules, usual: true }, day)
    const made = await createQuiz(db, await maren(), 'New', day)
    expect((await loadQuiz(db, made)).quiz.rules.limit).toBe(77)
    const theirs = await createQuiz(db, await person(db, 'p-idris'), 'New', day)
    expect((await loadQuiz(db, theirs)).quiz.rules.limit).toBe(45)
    await keepSet(db, await maren(), { ...set, name: 'Other', usual: true }, day)
    expect((await listSets(db, await maren())).filter(({ usual }) => usual).map(({ name }) => name)).toEqual(['Other'])
  })
})
