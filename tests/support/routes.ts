import { blankBlueprint } from '../../core/blueprint'
import { iso } from '../../core/kit/time'
import type { Database } from '../../server/database/database'
import { setAddress } from '../../server/domain/quizzes/filing'
import { startSitting } from '../../server/domain/sittings/start'
import { sampleQuestion } from '../fixtures/core'
import { person } from './database'
import { itemsOf } from './quiz'
import { rosterFile } from './roster'
import { noAccommodation } from '../../core/quiz'
import { ruleSets } from '../../core/rules/sets'

/** A sitting of Silas Penn's in quiz-buoys, and a question of its paper: set before the routes are called. */
export const known = { attempt: '', item: '', address: '' }
export async function knowSitting(db: Database, now = iso(Date.now())): Promise<void> {
  const silas = await person(db, 'p-silas-penn')
  known.attempt = (await startSitting(db, silas, 'quiz-buoys', { device: 'd1' }, now)).attempt
  known.address = (await setAddress(db, await person(db, 'p-maren'), 'quiz-tides', true, now)).address!
  await layOutWalked(db)
  known.item = (await itemsOf(db, known.attempt))['q-port-mark']!.item
}

/** A class that Maren and Idris teach, with a group and somebody who can be moved about. */
async function layOutWalked(db: Database): Promise<void> {
  await db.run("INSERT INTO class (id, school_id, name) VALUES ('c-walk', 'gannet', 'Walked')")
  await db.run("INSERT INTO class_teacher (class_id, person_id) VALUES ('c-walk', 'p-maren'), ('c-walk', 'p-idris')")
  await db.run(
    "INSERT INTO person (id, school_id, role, name, email, password_hash) VALUES ('p-walk', 'gannet', 'student', 'Walked About', NULL, '')",
  )
  await db.run("INSERT INTO enrolment (class_id, person_id) VALUES ('c-walk', 'p-walk')")
  await db.run("INSERT INTO class_group (id, class_id, name) VALUES ('g-walk', 'c-walk', 'Walked')")
  await db.run(
    "INSERT INTO own_field (id, school_id, name, sort, choices) VALUES ('f-walk', 'gannet', 'Walk', 'text', '[]')",
  )
  await db.run(
    `INSERT INTO grade_scale (id, school_id, name, bands) VALUES ('s-walk', 'gannet', 'Walk', '[{"from":0,"label":"all"}]')`,
  )
  await db.run(
    "INSERT INTO rule_set (id, school_id, owner_id, name, words, body) VALUES ('r-walk', 'gannet', 'p-maren', 'Walk', '', '{}')",
  )
  await db.run(
    "INSERT INTO term (id, school_id, name, starts, ends) VALUES ('t-walk', 'gannet', 'Walked', '2026-09-01', '2026-12-20')",
  )
}
const walkedSet = { name: 'Walked', words: '', rules: ruleSets[0]!.rules, shared: false, usual: false }
const twoBands = [
  { from: 50, label: 'over' },
  { from: 0, label: 'under' },
]
const need = { ...noAccommodation, factor: 1, extraMinutes: 0, stretchWindow: false }
/** Who runs the school: Maren. */
const adminOnly = { teacher: true, coTeacher: 403, student: 403, other: 403, nobody: 401 } as const
/** A link that leads nowhere, whoever follows it. */
const noLink = { teacher: 404, coTeacher: 404, student: 404, other: 404, nobody: 404 } as const
const noPass = { teacher: 410, coTeacher: 410, student: 410, other: 410, nobody: 410 } as const

const teacherOnly = { teacher: true, coTeacher: true, student: 403, other: 403, nobody: 401 } as const
/** quiz-buoys is Maren's alone; quiz-tides she shares with Idris. */
const ownQuiz = { teacher: true, coTeacher: 404, student: 403, other: 403, nobody: 401 } as const
const sharedQuiz = { teacher: true, coTeacher: true, student: 403, other: 403, nobody: 401 } as const
const studentOnly = { teacher: 403, coTeacher: 403, student: true, other: true, nobody: 401 } as const
const ownAttempt = { teacher: 403, coTeacher: 403, student: true, other: 404, nobody: 401 } as const
const signedIn = { teacher: true, coTeacher: true, student: true, other: true, nobody: 401 } as const
const anyone = { teacher: true, coTeacher: true, student: true, other: true, nobody: true } as const
export type Expected = Record<'teacher' | 'coTeacher' | 'student' | 'other' | 'nobody', true | number>

/** Imports and blueprints are their teacher's alone; another's is not here. */
const noImport = { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 } as const
const blank = () => sampleQuestion('number')
export type Route = [
  method: string,
  file: string,
  path: () => string,
  body: (() => unknown) | undefined,
  expected: Expected,
]
/** Every route: a request that is well formed, and who may make it. `true` is anything but 401, 403, 404 and faults. */
let walked = 0
export const routes: Route[] = [
  ['GET', 'health', () => '/api/health', undefined, anyone],
  ['GET', 'session/index', () => '/api/session', undefined, anyone],
  [
    'POST',
    'session/index',
    () => '/api/session',
    () => ({ email: 'maren.holt@gannet.example', password: 'fair winds' }),
    anyone,
  ],
  ['DELETE', 'session/index', () => '/api/session', undefined, signedIn],
  ['GET', 'session/demo', () => '/api/session/demo', undefined, anyone],
  ['POST', 'session/demo', () => '/api/session/demo', () => ({ person: 'p-maren' }), anyone],
  ['GET', 'objectives/index', () => '/api/objectives', undefined, teacherOnly],
  [
    'POST',
    'objectives/index',
    () => '/api/objectives',
    () => ({ code: '9', title: 'Walked', parent: null, essential: false, needs: [] }),
    teacherOnly,
  ],
  [
    'PUT',
    'objectives/[id]',
    () => '/api/objectives/obj-7',
    () => ({ code: '7', title: 'Safety', parent: null, essential: true, needs: [] }),
    teacherOnly,
  ],
  [
    'DELETE',
    'objectives/[id]',
    () => '/api/objectives/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['GET', 'objectives/file', () => '/api/objectives/file?as=case', undefined, teacherOnly],
  [
    'POST',
    'objectives/look',
    () => '/api/objectives/look',
    () => new TextEncoder().encode('code,title\n10,Walked'),
    teacherOnly,
  ],
  [
    'POST',
    'objectives/import',
    () => '/api/objectives/import',
    () => new TextEncoder().encode('code,title\n10,Walked'),
    teacherOnly,
  ],
  ['GET', 'words/index', () => '/api/words', undefined, teacherOnly],
  [
    'PUT',
    'words/index',
    () => '/api/words',
    () => ({ on: 99, words: { schemes: [], fields: [], grades: [] } }),
    teacherOnly,
  ],
  ['GET', 'questions/index', () => '/api/questions?words=tide', undefined, teacherOnly],
  ['POST', 'questions/index', () => '/api/questions', blank, teacherOnly],
  ['POST', 'questions/preview', () => '/api/questions/preview', () => ({ question: blank() }), teacherOnly],
  ['GET', 'questions/[id]/index', () => '/api/questions/q-datum', undefined, teacherOnly],
  [
    'POST',
    'questions/[id]/versions',
    () => '/api/questions/q-datum/versions',
    () => ({ on: 99, question: blank() }),
    teacherOnly,
  ],
  ['PUT', 'questions/[id]/state', () => '/api/questions/q-flare/state', () => ({ retired: false }), teacherOnly],
  ['GET', 'questions/doubts', () => '/api/questions/doubts', undefined, teacherOnly],
  ['GET', 'questions/near', () => '/api/questions/near', undefined, teacherOnly],
  [
    'POST',
    'questions/changes/index',
    () => '/api/questions/changes',
    () => ({ questions: ['q-datum'], change: { do: 'points', points: 1 } }),
    teacherOnly,
  ],
  [
    'DELETE',
    'questions/changes/[id]',
    () => '/api/questions/changes/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['GET', 'questions/[id]/record', () => '/api/questions/q-datum/record', undefined, teacherOnly],
  ['PUT', 'questions/[id]/keeping', () => '/api/questions/q-datum/keeping', () => ({ folder: null }), teacherOnly],
  ['GET', 'questions/[id]/differences', () => '/api/questions/q-datum/differences?from=1&to=1', undefined, teacherOnly],
  ['GET', 'questions/[id]/remarks/index', () => '/api/questions/q-datum/remarks', undefined, teacherOnly],
  [
    'POST',
    'questions/[id]/remarks/index',
    () => '/api/questions/q-datum/remarks',
    () => ({ words: 'Is this so?', doubt: false }),
    teacherOnly,
  ],
  [
    'PUT',
    'questions/[id]/remarks/[remark]',
    () => '/api/questions/q-datum/remarks/none',
    () => ({ answered: true }),
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['POST', 'questions/file', () => '/api/questions/file', () => ({ questions: ['q-datum'], as: 'json' }), teacherOnly],
  [
    'POST',
    'imports/index',
    () => '/api/imports?name=a.md',
    () => new TextEncoder().encode('Which?\n\n= ebb'),
    teacherOnly,
  ],
  ['POST', 'imports/look', () => '/api/imports/look', () => ({ text: 'Which?\n\n= ebb' }), teacherOnly],
  ['GET', 'imports/[id]/index', () => '/api/imports/none', undefined, noImport],
  ['DELETE', 'imports/[id]/index', () => '/api/imports/none', undefined, noImport],
  ['GET', 'imports/[id]/progress', () => '/api/imports/none/progress', undefined, noImport],
  ['POST', 'imports/[id]/take', () => '/api/imports/none/take', () => ({ items: [0] }), noImport],
  ['POST', 'imports/[id]/stop', () => '/api/imports/none/stop', undefined, noImport],
  ['GET', 'files/template', () => '/api/files/template', undefined, teacherOnly],
  ['GET', 'files/schema', () => '/api/files/schema', undefined, anyone],
  ['GET', 'folders/index', () => '/api/folders', undefined, teacherOnly],
  ['POST', 'folders/index', () => '/api/folders', () => ({ name: 'Walked', parent: null }), teacherOnly],
  ['PUT', 'folders/[id]', () => '/api/folders/f-tides', () => ({ name: 'Tides' }), teacherOnly],
  [
    'DELETE',
    'folders/[id]',
    () => '/api/folders/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['GET', 'stimuli/index', () => '/api/stimuli?words=tide', undefined, teacherOnly],
  ['POST', 'stimuli/index', () => '/api/stimuli', () => ({ name: 'Walked', html: '<p>Words</p>' }), teacherOnly],
  ['GET', 'stimuli/[id]', () => '/api/stimuli/st-table', undefined, teacherOnly],
  [
    'PUT',
    'stimuli/[id]',
    () => '/api/stimuli/st-table',
    () => ({ on: 99, stimulus: { name: 'Walked', html: '<p>Words</p>' } }),
    teacherOnly,
  ],
  [
    'DELETE',
    'stimuli/[id]',
    () => '/api/stimuli/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['POST', 'quizzes/[id]/file', () => '/api/quizzes/quiz-buoys/file', () => ({ as: 'qti-2.2' }), ownQuiz],
  ['GET', 'outside/index', () => '/api/outside', undefined, teacherOnly],
  ['POST', 'outside/[bank]/ask', () => '/api/outside/weather-book/ask', undefined, teacherOnly],
  ['POST', 'outside/[bank]/sync', () => '/api/outside/harrow-bay/sync', undefined, teacherOnly],
  [
    'POST',
    'questions/[id]/take',
    () => '/api/questions/none/take',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  [
    'POST',
    'questions/[id]/fault',
    () => '/api/questions/none/fault',
    () => ({ words: 'Wrong.' }),
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  [
    'GET',
    'questions/[id]/correction',
    () => '/api/questions/q-datum/correction',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  [
    'POST',
    'questions/[id]/correction',
    () => '/api/questions/q-datum/correction',
    () => ({ take: true }),
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  ['GET', 'searches/index', () => '/api/searches', undefined, teacherOnly],
  ['POST', 'searches/index', () => '/api/searches', () => ({ name: 'Tides', query: { words: 'tide' } }), teacherOnly],
  [
    'DELETE',
    'searches/[id]',
    () => '/api/searches/none',
    undefined,
    { teacher: 404, coTeacher: 404, student: 403, other: 403, nobody: 401 },
  ],
  [
    'POST',
    'media/index',
    () => '/api/media',
    () => new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1]),
    teacherOnly,
  ],
  [
    'GET',
    'media/[id]',
    () => `/api/media/${'0'.repeat(64)}`,
    undefined,
    { teacher: 404, coTeacher: 404, student: 404, other: 404, nobody: 401 },
  ],
  ['GET', 'classes/index', () => '/api/classes', undefined, teacherOnly],
  ['GET', 'classes/[id]/index', () => '/api/classes/c-saturday', undefined, ownQuiz],
  [
    'PUT',
    'students/[id]/accommodation',
    () => '/api/students/p-kit-sorrel/accommodation',
    () => ({ factor: 1, extraMinutes: 0, stretchWindow: false }),
    ownQuiz,
  ],
  ['GET', 'files/formats', () => '/api/files/formats', undefined, teacherOnly],
  ['GET', 'quizzes/index', () => '/api/quizzes', undefined, teacherOnly],
  ['POST', 'quizzes/index', () => '/api/quizzes', () => ({ title: 'Walked' }), teacherOnly],
  ['GET', 'quizzes/[id]/index', () => '/api/quizzes/quiz-tides', undefined, sharedQuiz],
  ['GET', 'quizzes/[id]/edits', () => '/api/quizzes/quiz-tides/edits?since=0', undefined, sharedQuiz],
  [
    'POST',
    'quizzes/[id]/edits',
    () => '/api/quizzes/quiz-buoys/edits',
    () => ({ on: 1000, token: 'walk.1', edit: { do: 'set', path: ['rules', 'grace'], was: 1, value: 1 } }),
    ownQuiz,
  ],
  ['PUT', 'quizzes/[id]/opening', () => '/api/quizzes/quiz-tides/opening', () => ({ at: null }), sharedQuiz],
  ['GET', 'today', () => '/api/today', undefined, teacherOnly],
  ['POST', 'quizzes/[id]/days', () => '/api/quizzes/quiz-buoys/days', () => ({ student: 'p-petra-lund' }), ownQuiz],
  [
    'GET',
    'find',
    () => '/api/find?words=tide',
    undefined,
    { teacher: true, coTeacher: true, student: true, other: true, nobody: 401 },
  ],
  [
    'POST',
    'quizzes/[id]/trial',
    () => '/api/quizzes/quiz-tides/trial',
    () => ({ content: 'written', from: 0, count: 5, students: { mean: 0, deviation: 1, lose: 0.1 } }),
    sharedQuiz,
  ],
  [
    'POST',
    'quizzes/[id]/rehearsal',
    () => '/api/quizzes/quiz-tides/rehearsal',
    () => ({
      rehearsal: {
        who: { student: 'p-petra-lund' },
        content: 'written',
        fresh: true,
        draw: 0,
        acts: [],
        at: iso(Date.now()),
      },
      ask: { method: 'GET', path: 'my/quizzes' },
    }),
    sharedQuiz,
  ],
  ['GET', 'quizzes/[id]/why', () => '/api/quizzes/quiz-tides/why?student=p-kit-sorrel', undefined, sharedQuiz],
  ['GET', 'quizzes/[id]/checks', () => '/api/quizzes/quiz-tides/checks', undefined, sharedQuiz],
  ['POST', 'quizzes/[id]/open', () => '/api/quizzes/quiz-buoys/open', undefined, ownQuiz],
  ['GET', 'quizzes/[id]/close', () => '/api/quizzes/quiz-lights/close', undefined, ownQuiz],
  ['POST', 'quizzes/[id]/close', () => '/api/quizzes/quiz-lights/close', undefined, ownQuiz],
  ['PUT', 'quizzes/[id]/state', () => '/api/quizzes/quiz-chart/state', () => ({ state: 'filed' }), ownQuiz],
  [
    'PUT',
    'quizzes/[id]/release',
    () => '/api/quizzes/quiz-chart/release',
    () => ({ class: 'c-tuesday', released: true }),
    ownQuiz,
  ],
  [
    'POST',
    'quizzes/[id]/teachers',
    () => '/api/quizzes/quiz-lights/teachers',
    () => ({ email: 'nobody@gannet.example' }),
    ownQuiz,
  ],
  ['DELETE', 'quizzes/[id]/teachers', () => '/api/quizzes/quiz-lights/teachers?person=p-nobody', undefined, ownQuiz],
  [
    'POST',
    'quizzes/[id]/papers/[attempt]/let-in',
    () => `/api/quizzes/quiz-buoys/papers/${known.attempt}/let-in`,
    undefined,
    ownQuiz,
  ],
  ['POST', 'quizzes/[id]/link', () => '/api/quizzes/quiz-lights/link', undefined, ownQuiz],
  ['GET', 'quizzes/[id]/marks/index', () => '/api/quizzes/quiz-buoys/marks', undefined, ownQuiz],
  ['GET', 'quizzes/[id]/marks/[attempt]', () => `/api/quizzes/quiz-buoys/marks/${known.attempt}`, undefined, ownQuiz],
  [
    'PUT',
    'quizzes/[id]/marks/[attempt]',
    () => `/api/quizzes/quiz-buoys/marks/${known.attempt}`,
    () => ({ item: known.item, points: 1 }),
    ownQuiz,
  ],
  [
    'PUT',
    'quizzes/[id]/aside',
    () => '/api/quizzes/quiz-tides/aside',
    () => ({ code: 'luck', reason: 'Walked.' }),
    sharedQuiz,
  ],
  [
    'POST',
    'quizzes/[id]/copy',
    () => '/api/quizzes/quiz-tides/copy',
    () => ({ title: 'Walked on', withRules: true, days: 7 }),
    sharedQuiz,
  ],
  ['GET', 'quizzes/[id]/answers', () => '/api/quizzes/quiz-tides/answers', undefined, sharedQuiz],
  ['PUT', 'quizzes/[id]/address', () => '/api/quizzes/quiz-lights/address', () => ({ on: false }), ownQuiz],
  ['POST', 'quizzes/by-address', () => '/api/quizzes/by-address', () => ({ address: known.address }), teacherOnly],
  ['GET', 'quizzes/words', () => '/api/quizzes/words', undefined, teacherOnly],
  ['GET', 'quizzes/[id]/look', () => '/api/quizzes/quiz-tides/look', undefined, sharedQuiz],
  ['PUT', 'quizzes/[id]/filing', () => '/api/quizzes/quiz-tides/filing', () => ({ term: 'Winter' }), sharedQuiz],
  ['PUT', 'quizzes/[id]/here', () => '/api/quizzes/quiz-tides/here', () => ({ page: 'walked', row: null }), sharedQuiz],
  ['GET', 'quizzes/[id]/history', () => '/api/quizzes/quiz-tides/history', undefined, sharedQuiz],
  ['GET', 'quizzes/[id]/history/[revision]', () => '/api/quizzes/quiz-tides/history/0', undefined, sharedQuiz],
  ['GET', 'quizzes/[id]/live', () => '/api/quizzes/quiz-tides/live?page=walked', undefined, sharedQuiz],
  [
    'POST',
    'quizzes/[id]/proposal',
    () => '/api/quizzes/quiz-tides/proposal',
    () => ({ blueprint: blankBlueprint('Walked'), within: {}, seed: null }),
    sharedQuiz,
  ],
  ['GET', 'quizzes/[id]/ratings', () => '/api/quizzes/quiz-tides/ratings', undefined, sharedQuiz],
  [
    'PUT',
    'quizzes/[id]/ratings',
    () => '/api/quizzes/quiz-tides/ratings',
    () => ({ ratings: { 'q-datum': 0.5 } }),
    sharedQuiz,
  ],
  ['GET', 'quizzes/[id]/sorts', () => '/api/quizzes/quiz-tides/sorts', undefined, sharedQuiz],
  ['GET', 'blueprints/index', () => '/api/blueprints', undefined, teacherOnly],
  [
    'POST',
    'blueprints/index',
    () => '/api/blueprints',
    () => ({ blueprint: blankBlueprint('Walked'), shared: false }),
    teacherOnly,
  ],
  [
    'PUT',
    'blueprints/[id]',
    () => '/api/blueprints/none',
    () => ({ blueprint: blankBlueprint('Walked'), shared: false }),
    noImport,
  ],
  ['DELETE', 'blueprints/[id]', () => '/api/blueprints/none', undefined, noImport],
  ['GET', 'my/quizzes/index', () => '/api/my/quizzes', undefined, studentOnly],
  ['GET', 'my/quizzes/[id]/index', () => '/api/my/quizzes/quiz-buoys', undefined, studentOnly],
  ['POST', 'my/quizzes/[id]/start', () => '/api/my/quizzes/quiz-lights/start', () => ({ device: 'd1' }), studentOnly],
  ['GET', 'links/[token]', () => '/api/links/none', undefined, noLink],
  ['POST', 'links/[token]', () => '/api/links/none', () => ({ entries: {} }), noLink],
  [
    'POST',
    'students/by-address',
    () => '/api/students/by-address',
    () => ({ list: 'nobody@gannet.example' }),
    teacherOnly,
  ],
  ['PUT', 'my/quizzes/[id]/done', () => '/api/my/quizzes/quiz-lights/done', () => ({ done: true }), studentOnly],
  [
    'POST',
    'sittings/[id]/check',
    () => `/api/sittings/${known.attempt}/check`,
    () => ({ lease: 1, answer: { item: known.item, response: null, flagged: false, seq: 1 } }),
    ownAttempt,
  ],
  [
    'POST',
    'sittings/[id]/hint',
    () => `/api/sittings/${known.attempt}/hint`,
    () => ({ lease: 1, item: known.item, number: 1 }),
    ownAttempt,
  ],
  [
    'PUT',
    'sittings/[id]/notes',
    () => `/api/sittings/${known.attempt}/notes`,
    () => ({ item: known.item, note: 'Ebb?', marks: [[0, 4]] }),
    ownAttempt,
  ],
  [
    'POST',
    'sittings/[id]/away',
    () => `/api/sittings/${known.attempt}/away`,
    () => ({ token: 'abcdefgh1234', seconds: 4 }),
    ownAttempt,
  ],
  ['POST', 'sittings/[id]/again', () => `/api/sittings/${known.attempt}/again`, undefined, ownAttempt],
  ['POST', 'sittings/[id]/open', () => `/api/sittings/${known.attempt}/open`, () => ({ device: 'd1' }), ownAttempt],
  ['GET', 'sittings/[id]/clock', () => `/api/sittings/${known.attempt}/clock?lease=1`, undefined, ownAttempt],
  [
    'POST',
    'sittings/[id]/answers',
    () => `/api/sittings/${known.attempt}/answers`,
    () => ({ lease: 1, answers: [{ item: known.item, response: null, flagged: true, seq: 1 }] }),
    { ...ownAttempt, teacher: 403, coTeacher: 403 },
  ],
  [
    'POST',
    'sittings/[id]/page',
    () => `/api/sittings/${known.attempt}/page`,
    () => ({ lease: 1, page: 0 }),
    ownAttempt,
  ],
  [
    'POST',
    'sittings/[id]/section',
    () => `/api/sittings/${known.attempt}/section`,
    () => ({ lease: 1, section: 0 }),
    ownAttempt,
  ],
  [
    'POST',
    'sittings/[id]/recordings',
    () => `/api/sittings/${known.attempt}/recordings`,
    () => new Uint8Array([0x4f, 0x67, 0x67, 0x53]),
    ownAttempt,
  ],
  ['GET', 'reviews/[id]', () => `/api/reviews/${known.attempt}`, undefined, ownAttempt],
  ['POST', 'sittings/[id]/break', () => `/api/sittings/${known.attempt}/break`, () => ({ lease: 1 }), ownAttempt],
  ['DELETE', 'sittings/[id]/break', () => `/api/sittings/${known.attempt}/break`, undefined, ownAttempt],
  ['POST', 'sittings/[id]/hand-in', () => `/api/sittings/${known.attempt}/hand-in`, () => ({ lease: 1 }), ownAttempt],
  // Classes and people. Maren and Idris teach c-walk; Saturday morning is Maren's alone.
  ['POST', 'classes/index', () => '/api/classes', () => ({ name: 'Made by a walk' }), teacherOnly],
  ['PUT', 'classes/[id]/index', () => '/api/classes/c-saturday', () => ({ name: 'Saturday morning' }), ownQuiz],
  ['POST', 'classes/[id]/code', () => '/api/classes/c-saturday/code', () => ({ days: 3 }), ownQuiz],
  ['DELETE', 'classes/[id]/code', () => '/api/classes/c-saturday/code', undefined, ownQuiz],
  [
    'POST',
    'classes/[id]/students/index',
    () => '/api/classes/c-saturday/students',
    () => ({ list: 'Somebody New', invite: true }),
    ownQuiz,
  ],
  [
    'POST',
    'classes/[id]/students/out',
    () => '/api/classes/c-walk/students/out',
    () => ({ students: ['p-none'] }),
    teacherOnly,
  ],
  [
    'POST',
    'classes/[id]/students/back',
    () => '/api/classes/c-walk/students/back',
    () => ({ students: ['p-none'] }),
    teacherOnly,
  ],
  // Into a class that one does not teach nobody is moved.
  [
    'POST',
    'classes/[id]/students/move',
    () => '/api/classes/c-walk/students/move',
    () => ({ students: ['p-none'], to: 'c-saturday' }),
    ownQuiz,
  ],
  [
    'PUT',
    'classes/[id]/students/need',
    () => '/api/classes/c-walk/students/need',
    () => ({ students: ['p-walk'], need }),
    teacherOnly,
  ],
  [
    'POST',
    'classes/[id]/teachers/index',
    () => '/api/classes/c-saturday/teachers',
    () => ({ email: 'maren.holt@gannet.example', may: 'teach' }),
    ownQuiz,
  ],
  ['DELETE', 'classes/[id]/teachers/[teacher]', () => '/api/classes/c-saturday/teachers/p-none', undefined, ownQuiz],
  [
    'POST',
    'classes/[id]/groups/index',
    () => '/api/classes/c-saturday/groups',
    () => ({ name: `Walked ${walked++}`, members: [] }),
    ownQuiz,
  ],
  [
    'PUT',
    'classes/[id]/groups/[group]/index',
    () => '/api/classes/c-walk/groups/g-walk',
    () => ({ name: 'Walked', members: ['p-walk'] }),
    teacherOnly,
  ],
  [
    'PUT',
    'classes/[id]/groups/[group]/accommodation',
    () => '/api/classes/c-walk/groups/g-walk/accommodation',
    () => need,
    teacherOnly,
  ],
  [
    'DELETE',
    'classes/[id]/groups/[group]/index',
    () => '/api/classes/c-walk/groups/none',
    undefined,
    { ...teacherOnly, teacher: 404, coTeacher: 404 },
  ],
  ['POST', 'classes/code', () => '/api/classes/code', () => ({ code: 'BCDFG234' }), anyone],
  ['POST', 'classes/join', () => '/api/classes/join', () => ({ code: 'BCDFG234' }), studentOnly],
  [
    'POST',
    'classes/newcomer',
    () => '/api/classes/newcomer',
    () => ({ code: 'BCDFG234', name: 'New Comer', email: 'new@walk.example', password: 'three quiet harbours' }),
    anyone,
  ],
  ['GET', 'students/[id]/index', () => '/api/students/p-kit-sorrel', undefined, ownQuiz],
  ['POST', 'students/[id]/link', () => '/api/students/p-bram-oakes/link', undefined, ownQuiz],
  ['GET', 'rule-sets/index', () => '/api/rule-sets', undefined, teacherOnly],
  ['POST', 'rule-sets/index', () => '/api/rule-sets', () => walkedSet, teacherOnly],
  ['PUT', 'rule-sets/[id]', () => '/api/rule-sets/r-walk', () => ({ ...walkedSet, name: 'On' }), ownQuiz],
  ['DELETE', 'rule-sets/[id]', () => '/api/rule-sets/none', undefined, { ...ownQuiz, teacher: 404 }],
  ['GET', 'my/calendar/index', () => '/api/my/calendar', undefined, signedIn],
  ['POST', 'my/calendar/address', () => '/api/my/calendar/address', undefined, signedIn],
  ['DELETE', 'my/calendar/address', () => '/api/my/calendar/address', undefined, signedIn],
  [
    'GET',
    'calendar/[token]',
    () => `/api/calendar/${'x'.repeat(43)}`,
    undefined,
    { teacher: 404, coTeacher: 404, student: 404, other: 404, nobody: 404 },
  ],
  ['GET', 'scales/index', () => '/api/scales', undefined, teacherOnly],
  ['POST', 'scales/index', () => '/api/scales', () => ({ name: 'Walked', bands: twoBands }), adminOnly],
  ['PUT', 'scales/[id]', () => '/api/scales/s-walk', () => ({ name: 'Walked on', bands: twoBands }), adminOnly],
  ['DELETE', 'scales/[id]', () => '/api/scales/none', undefined, { ...adminOnly, teacher: 404 }],
  ['GET', 'fields/index', () => '/api/fields', undefined, teacherOnly],
  ['POST', 'fields/index', () => '/api/fields', () => ({ name: 'Walked', sort: 'text', choices: [] }), adminOnly],
  ['PUT', 'fields/[id]', () => '/api/fields/f-walk', () => ({ name: 'On', sort: 'text', choices: [] }), adminOnly],
  ['DELETE', 'fields/[id]', () => '/api/fields/none', undefined, { ...adminOnly, teacher: 404 }],
  ['PUT', 'students/[id]/fields', () => '/api/students/p-kit-sorrel/fields', () => ({}), ownQuiz],
  ['GET', 'terms/index', () => '/api/terms', undefined, teacherOnly],
  [
    'POST',
    'terms/index',
    () => '/api/terms',
    () => ({ name: 'Another', starts: '2027-01-10', ends: '2027-04-01' }),
    adminOnly,
  ],
  [
    'PUT',
    'terms/[id]',
    () => '/api/terms/t-walk',
    () => ({ name: 'Walked', starts: '2026-09-01', ends: '2026-12-20' }),
    adminOnly,
  ],
  ['DELETE', 'terms/[id]', () => '/api/terms/none', undefined, { ...adminOnly, teacher: 404 }],
  ['GET', 'passes/[token]', () => '/api/passes/none', undefined, noPass],
  ['POST', 'passes/[token]', () => '/api/passes/none', () => ({ password: 'three quiet harbours' }), noPass],
  [
    'PUT',
    'session/password',
    () => '/api/session/password',
    () => ({ current: 'not this one', next: 'three quiet harbours' }),
    signedIn,
  ],
  ['DELETE', 'session/everywhere', () => '/api/session/everywhere', undefined, signedIn],
  ['POST', 'session/forgot', () => '/api/session/forgot', () => ({ email: 'nobody@walk.example' }), anyone],
  [
    'POST',
    'first-start/index',
    () => '/api/first-start',
    () => ({
      school: 'Second school',
      zone: 'Europe/Oslo',
      name: 'Second Teacher',
      email: 'second@walk.example',
      password: 'three quiet harbours',
    }),
    anyone,
  ],
  [
    'PUT',
    'school/index',
    () => '/api/school',
    () => ({ name: 'Gannet Sound Sailing School', zone: 'Europe/London' }),
    adminOnly,
  ],
  ['GET', 'people/index', () => '/api/people?words=a', undefined, adminOnly],
  [
    'POST',
    'people/index',
    () => '/api/people',
    () => ({ name: 'New Teacher', email: `t${walked++}@walk.example` }),
    adminOnly,
  ],
  ['PUT', 'people/[id]/index', () => '/api/people/p-walk', () => ({ name: 'Walked About' }), adminOnly],
  ['POST', 'people/[id]/link', () => '/api/people/p-walk/link', undefined, adminOnly],
  ['GET', 'mail/index', () => '/api/mail', undefined, adminOnly],
  ['GET', 'roster/index', () => '/api/roster', undefined, adminOnly],
  [
    'POST',
    'roster/look',
    () => '/api/roster/look',
    () => ({ files: [rosterFile(['Walked About,,Walked,student'])] }),
    adminOnly,
  ],
  [
    'POST',
    'roster/index',
    () => '/api/roster',
    () => ({ files: [rosterFile(['Walked About,,Walked,student'])], mark: 'none', takeOut: false }),
    adminOnly,
  ],
  ['POST', 'roster/[id]/undo', () => '/api/roster/none/undo', undefined, { ...adminOnly, teacher: 404 }],
  ['GET', 'roster/file', () => '/api/roster/file?as=csv', undefined, adminOnly],
  ['GET', 'roster/template', () => '/api/roster/template', undefined, teacherOnly],
  ['GET', 'classes/[id]/file', () => '/api/classes/c-saturday/file?as=csv', undefined, ownQuiz],
  ['GET', 'people/[id]/data', () => '/api/people/p-nell-ashdown/data', undefined, adminOnly],
  ['POST', 'people/[id]/nameless/index', () => '/api/people/none/nameless', undefined, { ...adminOnly, teacher: 404 }],
  [
    'DELETE',
    'people/[id]/nameless/index',
    () => '/api/people/none/nameless',
    undefined,
    { ...adminOnly, teacher: 410 },
  ],
]
