/** Sets of rules to start from: whole, without fault, and told apart from what a quiz has. */
import { describe, expect, it } from 'vitest'
import { at, checkedQuestion, questionRow, sampleContent, sampleRules, sampleStudent } from '../../tests/fixtures/core'
import { applyEdit, checkQuiz, setAt, usualRules, type Quiz } from '../quiz'
import { leaks } from '../release'
import { assignedTo } from '../schedule'
import type { Reading } from '.'
import { completedSet, differing, nearestSet, ofOneQuiz, ruleSets, setRules, setRulesOf, takeSet } from './sets'

const own: Partial<Quiz['rules']> = { password: 'ebb', needs: [] }
const quiz: Quiz = { content: sampleContent([questionRow('q1')]), rules: sampleRules(own) }
const reading = (each: Quiz): Reading => ({ quiz: each, zone: 'UTC', names: new Map([['tue', 'Tuesday']]), scales: [] })
const taken = (set: (typeof ruleSets)[number], from = quiz) => {
  const edit = takeSet(set, from)
  return edit ? applyEdit(from, edit).quiz : from
}

describe('sets of rules', () => {
  it.each(ruleSets.map((set) => [set.name, set] as const))(
    '%s is whole, and is found again in what took it',
    (_name, set) => {
      expect(setRules.parse(set.rules)).toEqual(set.rules)
      const next = taken(set)
      expect(differing(set, reading(next))).toEqual([])
      expect(nearestSet(ruleSets, next).id).toBe(set.id)
      expect(takeSet(set, next)).toBeNull()
      for (const name of ofOneQuiz) expect(next.rules[name]).toEqual(quiz.rules[name])
      expect(setRulesOf(next.rules)).toEqual(set.rules)
    },
  )
  it.each(ruleSets.filter(({ id }) => id !== 'practice').map((set) => [set.name, set] as const))(
    '%s gives nothing away, and its checks find nothing that stops',
    (_name, set) => {
      const next = taken(set)
      const students = assignedTo([sampleStudent(), sampleStudent({ id: 'p2' })], next.rules)
      expect(leaks(next.rules, students)).toEqual([])
      const found = checkQuiz(next, {
        now: at('08:00'),
        zone: 'UTC',
        questions: new Map([['q1', checkedQuestion('Q')]]),
        names: new Map([['tue', 'Tuesday']]),
        scales: [],
        objectives: new Map(),
        students,
      })
      expect(found.filter(({ level }) => level === 'stop')).toEqual([])
    },
  )
  it('what differs is said as in the record, each with its way back', () => {
    const test = ruleSets.find(({ id }) => id === 'test')!
    const next = taken(test)
    const changed = applyEdit(next, setAt(next, ['rules', 'limit'], 60)).quiz
    const [one, ...rest] = differing(test, reading(changed))
    expect([one!.title, one!.changes, rest]).toEqual(['limit', ['limit 45 → 60 minutes'], []])
    expect(applyEdit(changed, one!.edit).quiz).toEqual(next)
    expect(nearestSet(ruleSets, changed).id).toBe('test')
  })
  it('one that was kept before a rule came is completed with the usual value', () => {
    const { late: _late, ...older } = ruleSets[0]!.rules
    expect(completedSet(older)).toEqual({ ...ruleSets[0]!.rules, late: usualRules.late })
    expect(completedSet({})).toEqual(setRulesOf(usualRules))
  })
})
