import { useAsyncState } from '@vueuse/core'
import { fileRoutes } from '~/client/files'

/** The formats in which files are read and written, as options to choose from. */
export function useFileFormats() {
  const { state } = useAsyncState(() => fileRoutes.formats(), { read: [], questions: [], quiz: [] })
  const options = (formats: { name: string; label: string; whole: boolean }[]) =>
    formats.map(({ name, label, whole }) => ({ value: name, label, whole }))
  return {
    questions: computed(() => options(state.value.questions)),
    quiz: computed(() => options(state.value.quiz)),
    /** Endings of files that can be read, for choosing a file. */
    endings: computed(() => state.value.read.flatMap(({ endings }) => endings.map((ending) => `.${ending}`)).join()),
  }
}
