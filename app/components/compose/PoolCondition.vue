<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { folderRoutes } from '~/client/folders'
import { objectiveRoutes } from '~/client/objectives'
import { quizRoutes } from '~/client/quizzes'
import { vocabularyRoutes } from '~/client/words'
import { count, sentenceTime } from '~~/core/kit/phrases'
import { kindLabels } from '~~/core/question/kinds'
import type { PoolRow } from '~~/core/quiz'
import type { Condition } from '~~/core/quiz/condition'
import { asList } from '~~/core/quiz/arrange'
import { setAt } from '~~/core/quiz/edits'

/** The condition of a pool in words, and what can be done with it. */
const { pool, by } = defineProps<{ pool: PoolRow; by: Condition }>()
const store = useQuiz()
const session = useSession()
const held = useHeld()
const changing = inject(changeCondition)!
const { state: known } = useAsyncState(
  async () => {
    const [objectives, folders, words, quizzes] = await Promise.all([
      objectiveRoutes.list(),
      folderRoutes.list(),
      vocabularyRoutes.get(),
      quizRoutes.list(),
    ])
    return {
      objective: new Map(objectives.map(({ id, code, title }) => [id, `${code} ${title}`])),
      folder: new Map(folders.map(({ id, name }) => [id, name])),
      level: new Map(
        words.words.schemes.flatMap((scheme) =>
          scheme.levels.map((level) => [`${scheme.id}:${level.id}`, `${scheme.name}: ${level.name}`] as const),
        ),
      ),
      quizzes: quizzes.quizzes.filter(({ id }) => id !== store.id),
    }
  },
  { objective: new Map(), folder: new Map(), level: new Map(), quizzes: [] } as {
    objective: Map<string, string>
    folder: Map<string, string>
    level: Map<string, string>
    quizzes: { id: string; title: string }[]
  },
)
const names = computed(() => new Map(known.value.quizzes.map(({ id, title }) => [id, title])))
const parts = computed(() => {
  const named = (ids: readonly string[], map: ReadonlyMap<string, string>) => ids.map((id) => map.get(id) ?? '…')
  const said: [string, readonly string[]][] = [
    ['words', by.words ? [`“${by.words}”`] : []],
    ['kind', by.kind.map((kind) => kindLabels[kind])],
    ['objective', named(by.objective, known.value.objective)],
    ['difficulty', by.difficulty.map(String)],
    ['tag', by.tag],
    ['folder', named(by.folder, known.value.folder)],
    ['thinking level', named(by.level, known.value.level)],
    ['grade level', by.grade],
    ['language', by.language.map(languageName)],
    ['in the quiz', named(by.quizzes, names.value)],
    ['not opened since', by.unusedSince ? [sentenceTime(by.unusedSince, session.zone)] : []],
  ]
  return said.filter(([, values]) => values.length)
})
const set = (name: keyof Condition, value: unknown) => {
  store.make(setAt(store.quiz!, ['rows', pool.id, 'condition'], { ...by, [name]: value }))
}
function freeze() {
  const questions = held(pool)
  store.make(asList(store.quiz!, pool.id, questions))
  announce('The pool has a list now, and stays with it.', store.undo)
}
</script>

<template>
  <div class="border-l-4 border-petrol-mid pl-4 text-label">
    <p>It holds whatever this finds when the quiz is opened; now {{ count(held(pool).length, 'question') }}.</p>
    <ul class="mt-1 flex flex-wrap gap-1.5">
      <li v-for="[name, values] in parts" :key="name" class="tag">
        <span class="text-soft">{{ name }}</span> {{ values.join(' or ') }}
      </li>
      <li v-if="!parts.length" class="tag">everything that can be used</li>
    </ul>
    <p v-if="by.except.length" class="mt-1">
      Without {{ count(by.except.length, 'question') }}.
      <button class="link" @click="set('except', [])">Let them in again</button>
    </p>
    <div class="mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-1">
      <button
        class="link"
        :aria-pressed="changing === pool.id"
        @click="changing = changing === pool.id ? null : pool.id"
      >
        {{ changing === pool.id ? 'leave the condition as it is' : 'change the condition' }}
      </button>
      <PickMenu
        words="Only of the quiz"
        :options="known.quizzes.map(({ id, title }) => ({ value: id, label: title }))"
        @pick="set('quizzes', [...new Set([...by.quizzes, $event])])"
      />
      <button v-if="by.quizzes.length" class="link" @click="set('quizzes', [])">of any quiz or none</button>
      <button class="link" :disabled="!held(pool).length" @click="freeze">keep what it holds now, as a list</button>
    </div>
    <p v-if="changing === pool.id" class="note-look mt-1.5">
      Search in the finder, with words and filters; then “A pool of what this finds” sets it for this pool.
    </p>
  </div>
</template>
