import { addFolder, newFolder } from '../../domain/bank/describing/folders'
import { route } from '../../utils/route'

export default route({
  right: 'teacher',
  body: newFolder,
  handle: ({ db, person, body }) => addFolder(db, person, body),
})
