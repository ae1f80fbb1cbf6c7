<script setup lang="ts">
import type { Row } from '~~/core/quiz'
import { newRow, newSection } from '~~/core/quiz/blank'
import type { Condition } from '~~/core/quiz/condition'
import {
  addRows as addRowsEdit,
  addSection as addSectionEdit,
  addTo,
  listTo,
  moveRow as moveRowEdit,
  moveSection as moveSectionEdit,
  setAt,
  together,
} from '~~/core/quiz/edits'
import { asNewRow, replaceQuestion } from '~~/core/quiz/arrange'
import { count } from '~~/core/kit/phrases'
import { allRows, questionsUsed, rowSize } from '~~/core/quiz/walk'
import type { QuizLook } from '~~/server/domain/quizzes/look'
import type { KindName } from '~~/core/question'
import { kindLabels } from '~~/core/question/kinds'
import { mostCommon, type Writing } from '~/utils/writing'
import { useAsyncState } from '@vueuse/core'
import { objectiveRoutes } from '~/client/objectives'
import type { Objective } from '~~/server/domain/bank/describing/objectives'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { StimulusDetail } from '~~/server/domain/bank/material/stimuli'

definePageMeta({ wide: true })
const store = useQuiz()
const selected = ref<string | null>(null)
const rows = useChosenRows()
provide(chosenRows, rows)
const live = inject(quizHere, null)
watch(selected, (row) => {
  if (live) live.row.value = row
})
/** Colleagues by the row they are on. */
const onRow = computed(
  () => new Map((live?.here.value ?? []).flatMap(({ row, name }) => (row ? [[row, name] as const] : []))),
)
const forPool = shallowRef<Hit[]>([])
const byCondition = shallowRef<Condition | null>(null)
const sections = computed(() => store.quiz?.content.sections ?? [])
const used = computed(() => new Set(store.met ? questionsUsed(store.met.content) : []))
const kindsToWrite = (Object.keys(kindLabels) as KindName[]).map((value) => ({ value, label: kindLabels[value] }))
const starts = computed(() => {
  let next = 1
  return sections.value.map((section) => {
    const first = next
    next += section.rows.reduce((total, row) => total + rowSize(row), 0)
    return first
  })
})

/** Where new rows go: after the selected one, else at the end of the last section. */
const target = computed(() => {
  for (const [index, section] of sections.value.entries()) {
    const at = section.rows.findIndex((row) => row.id === selected.value)
    if (at < 0) continue
    const last =
      starts.value[index]! + section.rows.slice(0, at + 1).reduce((total, row) => total + rowSize(row), 0) - 1
    return { section: section.id, after: selected.value, words: `after row ${last}` }
  }
  const section = sections.value.at(-1)
  return {
    section: section?.id ?? '',
    after: section?.rows.at(-1)?.id ?? null,
    words: section ? `to “${section.title.length > 18 ? `${section.title.slice(0, 17)}…` : section.title}”` : '',
  }
})

function addRows(rows: Row[]) {
  store.make(addRowsEdit(target.value.section, target.value.after, rows))
  selected.value = rows.at(-1)!.id
}
function add(hits: Hit[]) {
  store.learn(hits)
  const each = store.quiz!.content.rowPoints
  addRows(hits.map((hit) => newRow({ type: 'question', id: newRowId(), question: hit.id, points: each ?? hit.points })))
}
function makePool(pool: { title: string; draw: number; points: number }) {
  store.learn(forPool.value)
  const questions = forPool.value.map((hit) => hit.id)
  addRows([newRow({ type: 'pool', id: newRowId(), ...pool, questions, condition: byCondition.value })])
  closePool()
}
function closePool() {
  forPool.value = []
  byCondition.value = null
}

/** The pool that is selected: what is chosen in the finder can go into it. */
const selectedPool = computed(() => {
  const row = sections.value.flatMap((section) => section.rows).find((each) => each.id === selected.value)
  return row?.type === 'pool' && !row.condition ? row : null
})
/** The search becomes the condition of the pool that is open to be changed, or of a new one. */
const changing = ref<string | null>(null)
provide(changeCondition, changing)
function takeCondition(found: Condition) {
  const pool = changing.value
  changing.value = null
  if (!pool) byCondition.value = found
  else {
    store.make(setAt(store.quiz!, ['rows', pool, 'condition'], found))
    announce('The pool holds what this search finds from now on.', store.undo)
  }
}
function intoSelectedPool(hits: Hit[]) {
  const pool = selectedPool.value
  const fresh = hits.map((hit) => hit.id).filter((id) => !pool?.questions.includes(id))
  if (!pool || !fresh.length) {
    announce('They are in the pool already.')
    return
  }
  store.learn(hits)
  store.make(addTo(['rows', pool.id, 'questions'], pool.questions.at(-1) ?? null, fresh))
  announce(`${fresh.length} put into the pool.`, store.undo)
}

/** A question that is written, or changed, from within the quiz. */
const writing = shallowRef<Writing | null>(null)
function write(kind: KindName) {
  const { content } = store.quiz!
  const home = sections.value.find((section) => section.id === target.value.section)
  const around = [...store.facts.values()].filter((hit) => used.value.has(hit.id))
  const objectives = home?.objectives.length ? home.objectives : content.objectives
  const language = content.languages[0] ?? mostCommon(around.map((hit) => hit.language))
  writing.value = {
    as: 'new',
    kind,
    begins: {
      ...(objectives.length ? { objectives: objectives.slice(0, 1) } : {}),
      ...(content.rowPoints === null ? {} : { points: content.rowPoints }),
      ...(language ? { language } : {}),
    },
    folder: mostCommon(around.flatMap((hit) => hit.folder ?? [])),
  }
}
provide(changeQuestion, (question: string) => {
  writing.value = { as: 'change', question }
})
function made(hit: Hit) {
  writing.value = null
  add([hit])
}
function learnChanged(hit: Hit) {
  writing.value = null
  store.learn([hit])
  void store.recheck()
}
/** In the place of the question that it was made of. */
function putCopy(hit: Hit) {
  const of = writing.value?.as === 'change' ? writing.value.question : ''
  writing.value = null
  store.learn([hit])
  const edit = replaceQuestion(store.quiz!, of, hit.id)
  if (edit) store.make(edit)
  else add([hit])
}

const taking = ref(false)
/** Rows of another quiz, under ids of their own. */
function takeRows(look: QuizLook, ids: string[]) {
  taking.value = false
  store.learn(look.questions)
  addRows(
    allRows(look.content)
      .filter((row) => ids.includes(row.id))
      .map((row) => asNewRow(row, newRowId())),
  )
  announce(`${count(ids.length, 'row')} taken from “${look.title}”.`, store.undo)
}

const choosingStimulus = ref(false)
function addGroup(detail: StimulusDetail) {
  store.learn(detail.questions, [[detail.id, detail.stimulus.name]])
  const usable = detail.questions.filter((hit) => hit.state === 'usable')
  choosingStimulus.value = false
  if (!usable.length) {
    announce('No question on it can be used yet.')
    return
  }
  addRows([
    newRow({
      type: 'stimulus',
      id: newRowId(),
      stimulus: detail.id,
      questions: usable.map((hit) => hit.id),
      draw: usable.length,
      points: usable[0]!.points,
    }),
  ])
}

/** To a place: after a row, or first where that is null. */
function dropRow(row: string, section: string, after: string | null) {
  store.make(moveRowEdit(store.quiz!, row, section, after))
}

/** One place up or down, over the border of a section too. */
async function moveRow(id: string, by: number) {
  const at = sections.value.findIndex((section) => section.rows.some((row) => row.id === id))
  const section = sections.value[at]!
  const index = section.rows.findIndex((row) => row.id === id)
  const inside = index + by >= 0 && index + by < section.rows.length
  const next = sections.value[at + by]
  if (inside) dropRow(id, section.id, by > 0 ? section.rows[index + 1]!.id : (section.rows[index - 2]?.id ?? null))
  else if (next) dropRow(id, next.id, by > 0 ? null : (next.rows.at(-1)?.id ?? null))
  else return
  announce(inside ? `Moved ${by > 0 ? 'down' : 'up'}.` : `Moved to “${next!.title}”.`, store.undo)
  await nextTick()
  document.querySelector<HTMLElement>(`[data-row="${id}"]`)?.focus()
}
async function moveSection(from: number, to: number) {
  const moved = sections.value[from]!
  const rest = sections.value.filter((each) => each !== moved)
  if (to < 0 || to > rest.length) return
  store.make(moveSectionEdit(store.quiz!, moved.id, rest[to - 1]?.id ?? null))
  announce(`Section moved ${to > from ? 'down' : 'up'}.`, store.undo)
  await nextTick()
  order.value?.querySelector<HTMLElement>(`[data-section-id="${moved.id}"] .section-handle`)?.focus()
}
const order = useTemplateRef<HTMLElement>('order')
useDragOrder(order, moveSection, '.section-handle')
function addSection() {
  const id = newRowId()
  store.make(
    addSectionEdit(
      newSection({ id, title: `Section ${sections.value.length + 1}` }),
      sections.value.at(-1)?.id ?? null,
    ),
  )
  selected.value = null
}
/** Where pages are not parted by hand yet, they are from now on in that section. */
function addBreak() {
  const { section, after } = target.value
  const home = sections.value.find((each) => each.id === section)!
  const by = (home.pages ?? store.quiz!.content.pages).by
  const id = newRowId()
  store.make(
    together([
      addRowsEdit(section, after, [{ type: 'break', id }]),
      ...(by === 'breaks' ? [] : [setAt(store.quiz!, ['sections', section, 'pages'], { by: 'breaks' })]),
    ]),
  )
  if (by !== 'breaks') announce(`The pages of “${home.title}” are parted by hand now.`, store.undo)
  selected.value = id
}
const { state: objectives } = useAsyncState(() => objectiveRoutes.list(), [] as Objective[])
const setRowPoints = (typed: string) => {
  store.make(setAt(store.quiz!, ['content', 'rowPoints'], typed === '' ? null : Number(typed)))
}
const set = (name: 'title' | 'intro', value: string) => {
  store.make(setAt(store.quiz!, ['content', name], value))
}
</script>

<template>
  <div>
    <Teleport defer to="#quiz-actions"
      ><NuxtLink class="btn" :to="`/quizzes/${store.id}/fill`">Fill from a blueprint</NuxtLink
      ><NuxtLink class="btn" :to="`/quizzes/${store.id}/rules`">Go to rules</NuxtLink></Teleport
    >
    <div class="grid lg:h-[calc(100dvh-8.75rem)] lg:grid-cols-[min(20rem,26vw)_minmax(0,1fr)_min(16.5rem,22vw)]">
      <QuestionFinder
        class="max-h-[60dvh] border-b border-rule lg:max-h-none lg:border-b-0 lg:border-r"
        :place="target.words"
        @add="add"
        :pool="selectedPool ? `the pool${selectedPool.title ? ` “${selectedPool.title.slice(0, 20)}”` : ''}` : ''"
        @pool="forPool = $event"
        @into="intoSelectedPool"
        @condition="takeCondition"
      />
      <div class="min-h-0 px-5 py-4 lg:overflow-y-auto">
        <details class="mb-4 text-label">
          <summary class="text-soft">Title, objectives, and what students read first</summary>
          <div class="mt-2 space-y-3 bg-sheet p-4">
            <LabelledField label="Title"
              ><input
                class="field"
                maxlength="160"
                :value="store.quiz?.content.title"
                @change="set('title', ($event.target as HTMLInputElement).value)"
            /></LabelledField>
            <div>
              <span class="label">Instructions</span
              ><KeptText
                label="Instructions"
                :model-value="store.quiz?.content.intro ?? ''"
                @keep="set('intro', $event)"
              />
              <div class="mt-1 flex flex-wrap gap-x-6" role="radiogroup" aria-label="When they are read">
                <label
                  v-for="(words, value) in { before: 'read before they start', begun: 'only once they have begun' }"
                  :key="value"
                  class="flex items-center gap-1.5"
                  ><input
                    type="radio"
                    class="accent-petrol"
                    name="intro-shown"
                    :checked="store.quiz?.content.introShown === value"
                    @change="store.make(setAt(store.quiz!, ['content', 'introShown'], value))"
                  />{{ words }}</label
                >
              </div>
            </div>
            <LabelledField label="Points of new rows"
              ><input
                class="field block w-56! py-1"
                type="number"
                min="0"
                max="1000"
                step="0.5"
                placeholder="as the question says"
                :value="store.quiz?.content.rowPoints ?? ''"
                @change="setRowPoints(($event.target as HTMLInputElement).value)"
            /></LabelledField>
            <ObjectivePicker
              :chosen="store.quiz?.content.objectives ?? []"
              :objectives="objectives"
              @update:chosen="store.make(listTo(store.quiz!, ['content', 'objectives'], $event))"
            />
          </div>
        </details>
        <div ref="order">
          <RunningOrderSection
            v-for="(section, index) in sections"
            :key="section.id"
            :section="section"
            :starts-at="starts[index]!"
            :selected="selected"
            :only="sections.length === 1"
            :colleagues="onRow"
            :objectives="objectives"
            @select="selected = $event"
            @move-row="moveRow"
            @drop-row="dropRow"
            @move-section="moveSection(index, index + $event)"
          />
        </div>
        <div class="flex flex-wrap gap-2">
          <button class="btn" @click="addSection">Add a section</button>
          <PickMenu up words="Write a question here" :options="kindsToWrite" @pick="write" />
          <button class="btn" @click="taking = true">From an earlier quiz …</button>
          <button class="btn" @click="choosingStimulus = true">Add a stimulus with its questions …</button>
          <button
            class="btn"
            @click="addRows([{ type: 'text', id: newRowId(), html: '<p>A text between questions.</p>' }])"
          >
            Add a text {{ target.words }}
          </button>
          <button class="btn" :disabled="!selected" title="Choose a row: the page breaks behind it" @click="addBreak">
            Break the page {{ selected ? target.words : 'after a row' }}
          </button>
          <DownloadMenu class="ml-auto" what="quiz" :quiz="store.id!" :questions="[...used]" />
        </div>
        <details class="mt-5 text-label">
          <summary class="text-soft">What students read after handing in</summary>
          <ClosingWords class="mt-2" />
        </details>
        <p class="mt-4 text-note text-soft">
          Rows and sections move by their handles, or with Alt and the arrow keys; X chooses a row, with Shift all from
          the one before; Delete takes a row out; Ctrl Z takes anything back.
        </p>
        <ChosenBar :sections="sections" />
      </div>
      <aside class="min-h-0 space-y-6 overflow-y-auto border-rule bg-sheet px-4 py-4 lg:border-l">
        <FiguresPanel @pass-mark="navigateTo(`/quizzes/${store.id}/pass-mark`)" />
        <div>
          <h2 class="small-head mb-2">Checks</h2>
          <ChecksList class="text-label" :checks="store.checks" />
        </div>
      </aside>
    </div>
    <WriteHere
      v-if="writing"
      :key="JSON.stringify(writing)"
      :writing="writing"
      :quiz="{ id: store.id!, title: store.quiz!.content.title }"
      @close="writing = null"
      @made="made"
      @changed="learnChanged"
      @copied="putCopy"
    />
    <TakeFromQuiz v-if="taking" :place="target.words" :quiz="store.id!" @close="taking = false" @take="takeRows" />
    <StimulusDialog :open="choosingStimulus" @close="choosingStimulus = false" @choose="addGroup" />
    <PoolDialog
      :open="forPool.length > 0 || byCondition !== null"
      :hits="forPool"
      @close="closePool"
      @make="makePool"
    />
  </div>
</template>
