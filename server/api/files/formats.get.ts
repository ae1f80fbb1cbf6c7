import { readable, writable } from '../../../formats'
import { route } from '../../utils/route'

const named = (formats: ReturnType<typeof writable>) =>
  formats.map(({ name, label, endings }) => ({ name, label, endings: [...endings] }))

/** Formats of files: those that are read, and those in which questions or a quiz are written. */
export default route({
  right: 'teacher',
  handle: () => ({ read: named(readable()), questions: named(writable()), quiz: named(writable('quiz')) }),
})
