import { readable, writable } from '../../../formats'
import { route } from '../../utils/route'

const named = (formats: ReturnType<typeof writable>) =>
  formats.map(({ name, label, endings, write }) => ({
    name,
    label,
    endings: [...endings],
    /** Thistle reads everything of it again, whatever others see. */
    whole: write !== undefined && !write.alone,
  }))

/** Formats of files: those that are read, and those in which questions or a quiz are written. */
export default route({
  right: 'teacher',
  handle: () => ({ read: named(readable()), questions: named(writable()), quiz: named(writable('quiz')) }),
})
