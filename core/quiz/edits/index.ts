export { editInWords, type Naming } from './words'
export { applyEdit } from './apply'
export type { Applied } from './step'
export { onto } from './onto'
export { edit, EditConflict, EditError, type Edit, type Path } from './edit'
export {
  addRows,
  addSection,
  addTo,
  editTo,
  listTo,
  moveRow,
  moveSection,
  removeFrom,
  removeRow,
  setAt,
  together,
} from './make'
export { changed, changesRules, questionsNamed, touches } from './touches'
