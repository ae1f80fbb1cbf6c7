import { completed } from '../question'
import { completedRules, completedSettings } from '../rules'
import type { Paper } from '../paper/schema'
import type { Content, Edition, Quiz, Row, Rules, Section } from './schema'

/**
 * Today's forms of documents that earlier releases wrote. What was stored was valid when it was stored; what is missing
 * is given its usual value, and names that mean nothing any more are left out, so that nothing becomes uneditable.
 */

type Stored = Record<string, unknown>
const asStored = (value: unknown): Stored => (typeof value === 'object' && value !== null ? (value as Stored) : {})
const listOf = (value: unknown): Stored[] => (Array.isArray(value) ? value.map(asStored) : [])

const giving = ['type', 'id', 'points', 'fixed', 'required', 'options'] as const
const rowParts: Record<Row['type'], readonly string[]> = {
  question: [...giving, 'question', 'version'],
  pool: [...giving, 'title', 'questions', 'condition', 'draw', 'spread'],
  stimulus: [...giving, 'stimulus', 'questions', 'draw', 'order'],
  text: ['type', 'id', 'html'],
  break: ['type', 'id'],
}
const usualParts: Stored = {
  title: '',
  order: 'kept',
  fixed: false,
  required: false,
  options: 'quiz',
  version: null,
  condition: null,
  points: 1,
  draw: 1,
  html: '',
  spread: 'none',
}

function completedRow(stored: Stored): Row {
  const parts = rowParts[stored.type as Row['type']]
  return Object.fromEntries(parts.map((name) => [name, stored[name] ?? usualParts[name]])) as unknown as Row
}

function completedSection(stored: Stored): Section {
  const { id, title, intro = '', order = 'kept', pages = null, limit = null, objectives = [], rows } = stored
  return { id, title, intro, order, pages, limit, objectives, rows: listOf(rows).map(completedRow) } as Section
}

export function completedContent(stored: unknown): Content {
  const {
    title,
    intro = '',
    sections,
    objectives = [],
    rowPoints = null,
    after = '',
    closing = [],
    ...settings
  } = asStored(stored)
  return {
    title,
    intro,
    sections: listOf(sections).map(completedSection),
    objectives,
    rowPoints,
    after,
    closing,
    ...completedSettings(settings),
  } as Content
}

export function completedQuiz(stored: unknown): Quiz {
  const { content, rules } = asStored(stored)
  return { content: completedContent(content), rules: completedRules(asStored(rules)) as Rules }
}

/** Rules that were stored by themselves, as a version. */
export function completedRulesOf(stored: unknown): Rules {
  return completedRules(asStored(stored)) as Rules
}

export function completedEdition(stored: unknown): Edition {
  const { id, number, secret, content, questions, stimuli = {} } = asStored(stored)
  return {
    id,
    number,
    secret,
    content: completedContent(content),
    questions: Object.fromEntries(
      Object.entries(asStored(questions)).map(([key, each]) => {
        const { version, question } = asStored(each)
        return [key, { version, question: completed(question as never) }]
      }),
    ),
    stimuli,
  } as Edition
}

export function completedPaper(stored: unknown): Paper {
  const { items, ...paper } = asStored(stored)
  return { ...paper, items: listOf(items) } as unknown as Paper
}
