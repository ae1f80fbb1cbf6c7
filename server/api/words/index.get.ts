import { loadVocabulary } from '../../domain/bank/describing/vocabulary'
import { route } from '../../utils/route'

/** Thinking levels, own fields and grade levels of the school. */
export default route({ right: 'teacher', handle: ({ db, person }) => loadVocabulary(db, person) })
