/** The core's public face, gathered for servers and tests. A page imports the folder that it needs. */
export { scoreAnswer, questionFaults, commentsFor, question, kinds, kindOf, type Question } from './question'
export { applyEdit, checkQuiz, edit, type Quiz, type Edition, type Rules } from './quiz'
export { compilePaper, sealPaper } from './paper'
export { scheduleFor, clockFor, maySit } from './schedule'
export { visibleFacets, leaks } from './release'
export { markAttempt, gradeFor } from './marking'
export { figuresFor } from './figures'
