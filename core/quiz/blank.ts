import type { FacetRule, ReleaseRules } from '../release/schema'
import type { Content, Quiz, Rules } from './schema'

const from = (at: 'handIn' | 'windowClosed' | 'everyoneDone' | 'attemptsUsed'): FacetRule => ({
  from: { at, offset: 0 },
  until: null,
  once: false,
  ifPassed: false,
})
const never: FacetRule = { from: { at: 'never' }, until: null, once: false, ifPassed: false }

/** Safe at the outset: the score at once, what gives the key away when everyone is done. */
export const defaultRelease: ReleaseRules = {
  score: from('handIn'),
  grade: from('handIn'),
  questions: from('windowClosed'),
  answers: from('windowClosed'),
  marks: from('everyoneDone'),
  key: from('everyoneDone'),
  comments: from('everyoneDone'),
  class: never,
  certificate: never,
}

export const defaultRules: Rules = {
  windows: [],
  announced: true,
  limit: 45,
  grace: 1,
  atDeadline: 'handIn',
  overrun: null,
  atClosing: 'clock',
  late: { accepted: true, costPerDay: 0 },
  attempts: { count: 1, wait: 0, draw: 'fresh', untilPassed: false, cost: 0 },
  grade: { method: 'highest', decimals: 1, pass: { by: 'percent', value: 60 } },
  password: null,
  release: defaultRelease,
}

export function blankContent(title: string, sectionId: string): Content {
  return {
    title,
    intro: '',
    sections: [{ id: sectionId, title: 'Section 1', intro: '', order: 'kept', rows: [] }],
    shuffleOptions: true,
    pages: { by: 'section' },
    movement: 'free',
    wrongCost: { by: 'none' },
  }
}

/** A new quiz. @param sectionId id of its first section */
export function newQuiz(title: string, sectionId: string): Quiz {
  return { content: blankContent(title, sectionId), rules: defaultRules }
}
