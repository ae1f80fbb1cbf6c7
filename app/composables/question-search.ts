import { folderRoutes } from '~/client/folders'
import { objectiveRoutes } from '~/client/objectives'
import { questionRoutes } from '~/client/questions'
import { vocabularyRoutes } from '~/client/words'
import { useDebounceFn } from '@vueuse/core'
import type { Vocabulary } from '~~/core/question/vocabulary'
import { kindLabels } from '~~/core/question/kinds'
import type { Objective } from '~~/server/domain/bank/describing/objectives'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { SearchResult } from '~~/server/domain/bank/finding/search'
import type { SearchQuery } from '~~/server/domain/bank/finding/search-query'

export type FilterName = (typeof filterNames)[number]
export interface FilterValue {
  name: FilterName
  value: string
  label: string
  count: number
  on: boolean
}
export interface FolderEntry {
  id: string
  parent: string | null
  name: string
  questions: number
}
/** What narrows a search beside words and facets. */
export interface Narrowing {
  state: SearchQuery['state']
  unusedSince: string
  doubted: '' | 'yes'
  owner: '' | 'me'
  origin: SearchQuery['origin']
}

const filterNames = ['kind', 'objective', 'difficulty', 'tag', 'folder', 'level', 'grade'] as const

/** Searching the bank as one types, with filters that say their counts: for the bank and the finder. */
export function useQuestionSearch(state: 'usable' | 'all') {
  const words = ref('')
  const filters = reactive<Record<FilterName, string[]>>({
    kind: [],
    objective: [],
    difficulty: [],
    tag: [],
    folder: [],
    level: [],
    grade: [],
  })
  const usual: Narrowing = { state, unusedSince: '', doubted: '', owner: '', origin: '' }
  const narrowing = reactive<Narrowing>({ ...usual })
  const result = shallowRef<SearchResult | null>(null)
  const objectives = shallowRef<Objective[]>([])
  const folders = shallowRef<FolderEntry[]>([])
  const vocabulary = shallowRef<Vocabulary>({ schemes: [], fields: [], grades: [] })
  const problem = ref('')
  const loading = ref(false)
  let controller: AbortController | undefined

  const query = computed(() => ({
    words: words.value,
    ...narrowing,
    ...Object.fromEntries(filterNames.map((name) => [name, filters[name].join(',')])),
  }))

  async function run(more = false) {
    controller?.abort()
    const current = (controller = new AbortController())
    loading.value = true
    try {
      const found = await questionRoutes.search({
        query: { ...query.value, from: more ? (result.value?.hits.length ?? 0) : 0 },
        signal: current.signal,
      })
      result.value = more && result.value ? { ...result.value, hits: [...result.value.hits, ...found.hits] } : found
      hasMore.value = found.hits.length > 0 && (result.value.hits.length < found.total || found.total > found.cap)
      problem.value = ''
    } catch (error) {
      if (!current.signal.aborted) problem.value = sentenceOf(error)
    } finally {
      if (current === controller) loading.value = false
    }
  }
  const hasMore = ref(false)
  const soon = useDebounceFn(() => run(), 150)
  watch(words, soon)
  watch([filters, narrowing], () => run())
  async function loadTrees() {
    try {
      const [found, lying, own] = await Promise.all([
        objectiveRoutes.list(),
        folderRoutes.list(),
        vocabularyRoutes.get(),
      ])
      vocabulary.value = own.words
      objectives.value = found
      folders.value = lying
    } catch (error) {
      problem.value = sentenceOf(error)
    }
  }
  onMounted(async () => {
    await Promise.all([run(), loadTrees()])
  })

  const labelled = computed<FilterValue[]>(() => {
    const counts = result.value?.counts
    if (!counts) return []
    const value = (name: FilterName, key: string, label: string): FilterValue => ({
      name,
      value: key,
      label,
      count: counts[name][key] ?? 0,
      on: filters[name].includes(key),
    })
    const tags = [...new Set([...filters.tag, ...Object.keys(counts.tag)])].sort()
    return [
      ...Object.entries(kindLabels).map(([key, label]) => value('kind', key, label)),
      ...objectives.value.map((objective) => value('objective', objective.id, `${objective.code} ${objective.title}`)),
      ...[1, 2, 3, 4, 5].map((level) => value('difficulty', String(level), `Difficulty ${level}`)),
      ...tags.map((tag) => value('tag', tag, tag)),
      ...folders.value.map((folder) => value('folder', folder.id, folder.name)),
      ...vocabulary.value.schemes.flatMap((scheme) =>
        scheme.levels.map((level) => value('level', `${scheme.id}:${level.id}`, `${scheme.name}: ${level.name}`)),
      ),
      ...[...new Set([...vocabulary.value.grades, ...filters.grade, ...Object.keys(counts.grade)])].map((grade) =>
        value('grade', grade, grade),
      ),
    ]
  })
  /** "1000+" where counting stopped. */
  const totalWords = computed(() => {
    const found = result.value
    if (!found) return ''
    return found.total > found.cap
      ? `${found.cap}+ questions`
      : found.total === 1
        ? '1 question'
        : `${found.total} questions`
  })

  function toggle(filter: { name: FilterName; value: string }) {
    const list = filters[filter.name]
    filters[filter.name] = list.includes(filter.value)
      ? list.filter((each) => each !== filter.value)
      : [...list, filter.value]
  }
  function clear() {
    words.value = ''
    for (const name of filterNames) filters[name] = []
    Object.assign(narrowing, usual)
  }
  /** Takes up a search that was saved. */
  function take(saved: Partial<SearchQuery>) {
    words.value = saved.words ?? ''
    for (const name of filterNames) filters[name] = (saved[name] ?? []).map(String)
    Object.assign(narrowing, usual, {
      state: saved.state ?? usual.state,
      unusedSince: saved.unusedSince ?? '',
      doubted: saved.doubted ?? '',
      owner: saved.owner ?? '',
      origin: saved.origin ?? '',
    })
  }
  const isNarrowed = computed(
    () =>
      words.value !== '' ||
      Object.values(filters).some((list) => list.length) ||
      JSON.stringify(narrowing) !== JSON.stringify(usual),
  )

  return {
    words,
    filters,
    narrowing,
    query,
    result,
    objectives,
    folders,
    problem,
    loading,
    labelled,
    totalWords,
    hasMore,
    toggle,
    clear,
    take,
    isNarrowed,
    loadTrees,
    run,
    more: () => run(true),
    hits: computed<Hit[]>(() => result.value?.hits ?? []),
  }
}
