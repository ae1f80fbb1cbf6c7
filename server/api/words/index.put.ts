import { keepVocabulary, vocabularyChange } from '../../domain/bank/describing/vocabulary'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: vocabularyChange,
  handle: ({ db, person, body }) => keepVocabulary(db, person, body.on, body.words),
})
