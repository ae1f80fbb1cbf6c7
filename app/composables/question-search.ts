import { useDebounceFn } from '@vueuse/core'
import { kindLabels } from '~~/core/question/kinds/labels'
import type { Hit, Objective, SearchResult } from '~~/server/domain/bank/search'

export type FilterName = 'kind' | 'objective' | 'difficulty'
export interface FilterValue { name: FilterName, value: string, label: string, count: number, on: boolean }

/** Searching the bank as one types, with filters that say their counts: for the bank and the finder. */
export function useQuestionSearch(state: 'usable' | 'all') {
  const words = ref('')
  const filters = reactive<Record<FilterName, string[]>>({ kind: [], objective: [], difficulty: [] })
  const result = shallowRef<SearchResult | null>(null)
  const objectives = shallowRef<Objective[]>([])
  const problem = ref('')
  const loading = ref(false)
  let controller: AbortController | undefined

  async function run(more = false) {
    controller?.abort()
    const current = controller = new AbortController()
    loading.value = true
    try {
      const query = { words: words.value, state, kind: filters.kind.join(','), objective: filters.objective.join(','), difficulty: filters.difficulty.join(','), from: more ? result.value?.hits.length ?? 0 : 0 }
      const found = await api<SearchResult>('questions', { query, signal: current.signal })
      result.value = more && result.value ? { ...found, hits: [...result.value.hits, ...found.hits] } : found
      problem.value = ''
    } catch (error) { if (!current.signal.aborted) problem.value = sentenceOf(error) } finally { if (current === controller) loading.value = false }
  }
  const soon = useDebounceFn(() => run(), 150)
  watch(words, soon)
  watch(filters, () => run())
  onMounted(async () => {
    await run()
    try { objectives.value = await api<Objective[]>('objectives') } catch (error) { problem.value = sentenceOf(error) }
  })

  const labelled = computed<FilterValue[]>(() => {
    const counts = result.value?.counts
    if (!counts) return []
    const value = (name: FilterName, key: string, label: string): FilterValue => ({ name, value: key, label, count: counts[name][key] ?? 0, on: filters[name].includes(key) })
    return [
      ...Object.entries(kindLabels).map(([key, label]) => value('kind', key, label)),
      ...objectives.value.map((objective) => value('objective', objective.id, `${objective.code} ${objective.title}`)),
      ...[1, 2, 3, 4, 5].map((level) => value('difficulty', String(level), `Difficulty ${level}`)),
    ]
  })

  function toggle(filter: { name: FilterName, value: string }) {
    const list = filters[filter.name]
    filters[filter.name] = list.includes(filter.value) ? list.filter((each) => each !== filter.value) : [...list, filter.value]
  }
  function clear() {
    words.value = ''
    for (const name of ['kind', 'objective', 'difficulty'] as const) filters[name] = []
  }
  const isNarrowed = computed(() => words.value !== '' || Object.values(filters).some((list) => list.length))

  return { words, result, objectives, problem, loading, labelled, toggle, clear, isNarrowed, more: () => run(true), hits: computed<Hit[]>(() => result.value?.hits ?? []) }
}
