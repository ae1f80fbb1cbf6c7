import { keepSchoolWords, wordsChange } from '../../domain/bank/school-words'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: wordsChange,
  handle: ({ db, person, body }) => keepSchoolWords(db, person, body.on, body.words),
})
