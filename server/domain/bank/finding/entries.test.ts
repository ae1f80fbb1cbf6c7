import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { sampleQuestion } from '../../../../tests/fixtures/core'
import { kindNames } from '../../../../core/question'
import { entryFor } from './search-query'
import { searchable, wordsOf } from './entries'

describe('words as they are searched', () => {
  it.each([
    ['HW at 0805', ['hw', 'at', '0805']],
    ['Zéphyr, ÅNGSTRÖM', ['zephyr', 'angstrom']],
    ['3.9 m ± 0.1', ['3.9', 'm', '0.1']],
    ["skipper’s o'clock", ['skipper’s', "o'clock"]],
    ['buoy buoy BUOY', ['buoy']],
    ['  — … ', []],
    ['大潮 прилив', ['大潮', 'прилив']],
  ])('%s', (text, words) => expect(wordsOf(text)).toEqual(words))
  it('a word is never an entry of another sort, whatever is written', () => {
    const entries = [
      entryFor.tag('x'),
      entryFor.objective('x'),
      entryFor.folder('x'),
      entryFor.level('a:b'),
      entryFor.grade('x'),
      entryFor.kind('choice', 1),
    ]
    fc.assert(
      fc.property(fc.oneof(fc.string({ unit: 'binary' }), fc.constantFrom(...entries)), (text) => {
        for (const word of wordsOf(text)) expect(word).not.toContain(':')
      }),
    )
  })
  it.each(kindNames)('%s: its stem, tags, source, fields and comments are looked into', (kind) => {
    const words = wordsOf(
      searchable(
        sampleQuestion(kind, {
          stem: '<p>Stemword</p>',
          tags: ['tagword'],
          source: 'Sourceword',
          internalName: 'Nameword',
          grade: 'Gradeword',
          fields: { a: 'Fieldword' },
          comments: { right: '<p>Rightword</p>', wrong: '', general: '' },
        }),
        'Objectiveword',
      ),
    )
    expect(words).toEqual(
      expect.arrayContaining([
        'stemword',
        'tagword',
        'sourceword',
        'nameword',
        'gradeword',
        'fieldword',
        'rightword',
        'objectiveword',
      ]),
    )
  })
})
