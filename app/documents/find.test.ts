import { describe, expect, it } from 'vitest'
import type { Memory } from './device'
import { matching, ownLines, Recent, type Line } from './find'

const teacher = { role: 'teacher' as const, admin: false }
const names = (lines: readonly Line[]) => lines.map(({ name }) => name)

describe('find or do', () => {
  it('offers the pages that somebody has, and those of the quiz at hand first', () => {
    expect(names(ownLines({ role: 'student', admin: false }, null))).toEqual(['My quizzes', 'About me'])
    expect(names(ownLines(teacher, null))).not.toContain('School')
    expect(names(ownLines({ ...teacher, admin: true }, null))).toContain('School')
    expect(names(ownLines(teacher, { id: 'q', title: 'Tides' }))[0]).toBe('Compose')
  })
  it('finds by beginnings of words in any order, what begins with them first', () => {
    const lines = ownLines(teacher, { id: 'q', title: 'Tides' })
    expect(names(matching(lines, 'quest'))[0]).toBe('Questions alike')
    expect(names(matching(lines, 'quest'))).toContain('Write a question')
    expect(names(matching(lines, 'tid reh'))).toEqual(['Rehearse'])
    expect(matching(lines, 'uiz')).toEqual([])
    expect(names(matching([{ ...lines[0]!, name: 'Éire' }], 'eir'))).toEqual(['Éire'])
  })
  it('keeps what was gone to last, once each, and not for ever', () => {
    const kept = new Map<string, unknown>()
    const memory = {
      read: (name: string) => kept.get(name) ?? null,
      write: (name: string, value: unknown) => void kept.set(name, value),
    } as Memory
    const recent = new Recent(memory, 'lately')
    expect(recent.lines).toEqual([])
    const all = ownLines(teacher, null)
    for (const line of [...all, all[0]!]) recent.note(line)
    expect(recent.lines).toHaveLength(8)
    expect(recent.lines[0]).toEqual(all[0])
    kept.set('lately', 'something else')
    expect(recent.lines).toEqual([])
  })
})
