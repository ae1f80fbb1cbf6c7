<script setup lang="ts">
import { useAsyncState, useDebounceFn, useLocalStorage } from '@vueuse/core'
import { blueprintRoutes } from '~/client/blueprints'
import { folderRoutes } from '~/client/folders'
import { objectiveRoutes } from '~/client/objectives'
import { questionRoutes } from '~/client/questions'
import { quizRoutes } from '~/client/quizzes'
import { newToken } from '~/documents/device'
import { vocabularyRoutes } from '~/client/words'
import { blueprint as schema, blueprintOf, countText, type Blueprint, type Cell, type Sort } from '~~/core/blueprint'
import { count } from '~~/core/kit/phrases'
import type { Row } from '~~/core/quiz'
import { rowsFor } from '~~/core/quiz/arrange'
import { newRow, newSection } from '~~/core/quiz/blank'
import { addRows, addSection } from '~~/core/quiz/edits'
import { questionsUsed } from '~~/core/quiz/walk'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { Objective } from '~~/server/domain/bank/describing/objectives'

/** Fills a quiz by a blueprint: what it must hold on the left, what the bank can give beside it. */
definePageMeta({ wide: true })
const store = useQuiz()
const { blueprint, setLine, set } = useBlueprint(() => store.quiz?.content.title ?? 'A blueprint')
/** What was being written stays over a reload. */
const draft = useLocalStorage<string>(`thistle:fill:${store.id ?? ''}`, '')
onMounted(() => {
  const read = draft.value ? schema.safeParse(JSON.parse(draft.value)) : null
  if (read?.success) blueprint.value = read.data
})
watch(blueprint, (now) => (draft.value = JSON.stringify(now)), { deep: true })

const { state: objectives } = useAsyncState(() => objectiveRoutes.list(), [] as Objective[])
const { state: folders } = useAsyncState(() => folderRoutes.list(), [])
const { state: words } = useAsyncState(async () => (await vocabularyRoutes.get()).words, {
  schemes: [],
  fields: [],
  grades: [],
})
const folder = ref('')
const own = ref(false)
const within = computed(() => ({
  ...(folder.value ? { folder: [folder.value] } : {}),
  owner: own.value ? ('me' as const) : ('' as const),
  origin: 'own' as const,
}))

const sorts = shallowRef<Sort[]>([])
const total = ref(0)
const { problem, act } = useAct()
const look = () =>
  act(async () => {
    const found = await blueprintRoutes.sorts({
      id: store.id!,
      query: { ...within.value, unusedSince: blueprint.value.unusedSince ?? '' } as never,
    })
    sorts.value = found.sorts
    total.value = found.total
  })
const lookSoon = useDebounceFn(look, 200)
watch([within, () => blueprint.value.unusedSince], lookSoon)
onMounted(look)

const { proposal, problem: refused, seconds, find, stop } = useProposal()
const asked = shallowRef<Blueprint | null>(null)
/** Anew each time it is pressed; the first takes what was used longest ago. */
async function solve(anew: boolean) {
  asked.value = JSON.parse(JSON.stringify(blueprint.value)) as Blueprint
  await find(store.id!, {
    blueprint: asked.value,
    within: within.value,
    seed: anew ? Math.floor(Math.random() * 1e9) : null,
  })
}
const lacking = computed(
  () =>
    new Map(
      (proposal.value?.shortfalls ?? []).flatMap((shortfall) =>
        shortfall.of === 'cell' && shortfall.lacks > 0 ? [[shortfall.cell, shortfall.lacks] as const] : [],
      ),
    ),
)
const isEmpty = computed(
  () =>
    !blueprint.value.cells.length &&
    !blueprint.value.questions &&
    !blueprint.value.points &&
    !blueprint.value.minutes &&
    !blueprint.value.essential.length,
)

const points = ref<number | null>(null)
const rowsOf = (hits: Hit[]): Row[] => rowsFor(hits, points.value, newRowId)

/** Into the last section when it is empty, else into a section of its own. */
function putIn(rows: Row[], title: string) {
  const last = store.quiz!.content.sections.at(-1)!
  const edit = last.rows.length
    ? addSection(newSection({ id: newRowId(), title, rows }), last.id)
    : addRows(last.id, null, rows)
  store.make(edit)
}
async function take(proposed: Hit[]) {
  const hits = await act(() => ownCopies(proposed))
  if (!hits) return
  store.learn(hits)
  putIn(rowsOf(hits), blueprint.value.title)
  await navigateTo(`/quizzes/${store.id!}/compose`)
  announce(`${count(hits.length, 'question')} taken into the running order.`, store.undo)
}
async function form(title: string, proposed: Hit[]) {
  const id = await act(async () => {
    const hits = await ownCopies(proposed)
    const made = await quizRoutes.add({ body: { title: `${store.quiz!.content.title} · form ${title}` } })
    const { quiz, revision } = await quizRoutes.get({ id: made.id })
    await quizRoutes.edit({
      id: made.id,
      body: {
        on: revision,
        token: `${newToken(8)}.0`,
        edit: addRows(quiz.content.sections[0]!.id, null, rowsOf(hits)),
      },
    })
    return made.id
  })
  if (id) announce(`Form ${title} is a quiz of its own, in draft.`)
}

const nameOf = (cell: Cell) => {
  const objective = objectives.value.find((each) => each.id === cell.objective)
  return [objective ? objective.title : '', cell.kind ?? '', cell.difficulty ? `difficulty ${cell.difficulty}` : '']
    .filter(Boolean)
    .join(', ')
}
const most = 400
/** Everything that fits a line and is not in the quiz yet. */
async function fitting(cell: Cell): Promise<Hit[]> {
  const used = new Set(questionsUsed(store.met!.content))
  const found: Hit[] = []
  for (;;) {
    const page = await questionRoutes.search({
      query: {
        ...within.value,
        state: 'usable',
        objective: cell.objective ? [cell.objective] : [],
        kind: cell.kind ? [cell.kind] : [],
        difficulty: cell.difficulty ? [cell.difficulty] : [],
        level: cell.level ? [cell.level] : [],
        unusedSince: blueprint.value.unusedSince ?? '',
        from: found.length,
        take: 200,
      } as never,
    })
    found.push(...page.hits)
    if (!page.hits.length || found.length >= Math.min(page.total, most)) return found.filter(({ id }) => !used.has(id))
  }
}
async function asPools() {
  const rows = await act(async () => {
    const made: Row[] = []
    for (const cell of blueprint.value.cells) {
      const hits = await ownCopies(await fitting(cell))
      if (!hits.length || !cell.count.atLeast) continue
      store.learn(hits)
      made.push(
        newRow({
          type: 'pool',
          id: newRowId(),
          title: nameOf(cell),
          questions: hits.map(({ id }) => id),
          draw: Math.min(cell.count.atLeast, hits.length),
          points: points.value ?? hits[0]!.points,
        }),
      )
    }
    return made
  })
  if (!rows?.length) return
  putIn(rows, blueprint.value.title)
  await navigateTo(`/quizzes/${store.id!}/compose`)
  announce(`${count(rows.length, 'pool')} taken into the running order.`, store.undo)
}
function readOff() {
  const facts = store.facts
  set(
    blueprintOf(store.met!.content, (id) => {
      const hit = facts.get(id)
      return hit && { kind: hit.kind, objectives: hit.objectives, seconds: hit.seconds }
    }),
  )
}
</script>

<template>
  <div class="grid lg:h-[calc(100dvh-8.75rem)] lg:grid-cols-2">
    <section class="min-h-0 overflow-y-auto px-6 py-4" aria-label="Blueprint">
      <p class="text-label">
        <NuxtLink class="link" :to="`/quizzes/${store.id}/compose`">Back to the running order</NuxtLink>
      </p>
      <h2 class="mt-1 border-b border-ink pb-1.5 text-xl">What the paper must hold</h2>
      <KeptBlueprints class="mt-3" :blueprint="blueprint" @use="set($event)" @read-off="readOff" />
      <LineMatrix
        class="mt-4"
        :blueprint="blueprint"
        :objectives="objectives"
        :sorts="sorts"
        :lacking="lacking"
        @line="setLine"
        @essential="set({ essential: $event })"
      />
      <WholePaper
        class="mt-5"
        :blueprint="blueprint"
        :sorts="sorts"
        :vocabulary="words"
        :lacking="lacking"
        @set="set"
        @line="setLine"
      />
      <div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2 text-label text-soft">
        <label
          >From
          <select v-model="folder" class="field w-auto! py-0.5">
            <option value="">the whole bank</option>
            <option v-for="each in folders" :key="each.id" :value="each.id">{{ each.name }}</option>
          </select></label
        >
        <TickBox :model-value="own" @update:model-value="own = !own">my own only</TickBox>
        <span role="status">{{ count(total, 'question') }}</span>
        <label
          >points each
          <input
            v-model.number="points"
            class="field w-24! py-0.5"
            type="number"
            min="0"
            max="1000"
            step="0.5"
            placeholder="its own"
        /></label>
      </div>
      <ProblemNote class="mt-3" :words="problem" />
      <div class="mt-4 flex flex-wrap gap-2 pb-4">
        <button type="button" class="btn btn-main" :disabled="isEmpty" @click="solve(false)">Find them</button>
        <button type="button" class="btn" :disabled="isEmpty" @click="solve(true)">Draw anew</button>
        <button
          type="button"
          class="btn"
          :disabled="!blueprint.cells.length"
          :title="blueprint.cells.map(({ count: each }) => countText(each)).join(', ')"
          @click="asPools"
        >
          Make pools that draw for each student
        </button>
      </div>
    </section>
    <div class="min-h-0 overflow-y-auto border-rule bg-sheet px-6 py-4 lg:border-l">
      <div v-if="seconds !== null" role="status" class="space-y-3">
        <p>Looking for the best that the bank can give … {{ seconds }} s</p>
        <progress class="w-full" />
        <button type="button" class="btn" @click="stop">Stop</button>
      </div>
      <template v-else>
        <ProblemNote :words="refused" />
        <ProposalList
          v-if="proposal && asked"
          :proposal="proposal"
          :blueprint="asked"
          :objectives="objectives"
          @take="take"
          @form="form"
          @sooner="(set({ unusedSince: null }), solve(false))"
          @leave="proposal = null"
        />
        <div v-else-if="!refused" class="text-soft">
          <h2 class="border-b border-ink pb-1.5 text-xl text-ink">Proposal</h2>
          <p class="mt-3">
            Say on the left how many questions of each sort a paper holds: <b>4</b>, <b>0–2</b> or <b>3+</b>. Below each
            number stands how many there are. Then press “Find them”: what comes is a proposal, to take whole or in
            part.
          </p>
        </div>
      </template>
    </div>
  </div>
</template>
