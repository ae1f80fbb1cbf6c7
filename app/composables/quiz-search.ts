import { useDebounceFn } from '@vueuse/core'
import { quizRoutes } from '~/client/quizzes'

/** Quizzes found as one types; each page says whether there are more. @param whose whose are looked through at first */
export function useQuizSearch(whose: 'mine' | 'school' | 'all') {
  const query = reactive({ words: '', whose, folder: '', term: '', tag: '' })
  const found = usePages(async (after) => {
    const page = await quizRoutes.list({ query: { ...query, after } })
    return { items: page.quizzes, more: page.more, next: after + page.quizzes.length }
  })
  const soon = useDebounceFn(() => found.again(), 150)
  watch(query, soon)
  const isNarrowed = computed(() => Boolean(query.words || query.folder || query.term || query.tag))
  return { query, isNarrowed, ...found }
}
