<script setup lang="ts">
import type { Blueprint, Shortfall } from '~~/core/blueprint'
import { exact, fixed, pointsText } from '~~/core/kit/exact'
import { count, percent, roughTime } from '~~/core/kit/phrases'
import { kindLabels } from '~~/core/question/kinds'
import type { ProposalView } from '~~/server/domain/blueprints/propose'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import type { Objective } from '~~/server/domain/bank/describing/objectives'
import { facilityOf } from '~~/core/figures'

/** What a blueprint found: what it lacks, and form by form the questions, to take whole or in part. */
const { proposal, blueprint, objectives } = defineProps<{
  proposal: ProposalView
  blueprint: Blueprint
  objectives: readonly Objective[]
}>()
const emit = defineEmits<{ take: [Hit[]]; form: [title: string, Hit[]]; sooner: []; leave: [] }>()
const shown = ref(0)
const out = ref(new Set<string>())
watch(
  () => proposal,
  () => {
    shown.value = 0
    out.value = new Set()
  },
)
const byId = computed(() => new Map(proposal.questions.map((hit) => [hit.id, hit])))
const hitsOf = (form: number) => (proposal.forms[form] ?? []).flatMap((id) => byId.value.get(id) ?? [])
const hits = computed(() => hitsOf(shown.value))
const taken = computed(() => hits.value.filter(({ id }) => !out.value.has(id)))
const inPoints = (of: readonly Hit[]) => {
  const all = of.reduce((sum, hit) => sum + hit.points, 0)
  return `${pointsText(all)} ${all === 1 ? 'point' : 'points'}`
}
const letter = (form: number) => String.fromCharCode(65 + form)
const nameOf = (id: string | null) => {
  const found = objectives.find((each) => each.id === id)
  return found ? `${found.code} ${found.title}` : ''
}
const words = (value: number) => fixed(exact(Math.round(value * 1e6) / 1e6), 1)
const sums = computed(() => ({
  points: hits.value.reduce((all, hit) => all + hit.points, 0),
  minutes: hits.value.reduce((all, hit) => all + hit.seconds, 0) / 60,
}))

/** Groups by the objective that the blueprint names, in its order; the rest last. */
const groups = computed(() => {
  const named = [...new Set(blueprint.cells.flatMap((cell) => cell.objective ?? []))]
  const under = (hit: Hit, objective: string) => {
    for (const id of hit.objectives)
      for (let at: string | null = id; at; at = objectives.find((each) => each.id === at)?.parent ?? null)
        if (at === objective) return true
    return false
  }
  const left = new Set(hits.value)
  const found = named.map((objective) => {
    const mine = [...left].filter((hit) => under(hit, objective))
    mine.forEach((hit) => left.delete(hit))
    return { title: nameOf(objective), hits: mine }
  })
  return [...found, { title: named.length ? 'Beside these' : '', hits: [...left] }].filter((group) => group.hits.length)
})

function lackWords(shortfall: Shortfall): string {
  const { lacks } = shortfall
  const amount = words(Math.abs(lacks)).replace(/\.0$/, '')
  const much = (unit: string) => `${amount} ${unit}${amount === '1' ? '' : 's'} ${lacks > 0 ? 'too few' : 'too many'}`
  if (shortfall.of === 'essential') return `${nameOf(shortfall.objective)}: no question that is not asked for elsewhere`
  if (shortfall.of !== 'cell') return shortfall.of === 'questions' ? much('question') : much(shortfall.of.slice(0, -1))
  const cell = blueprint.cells.find((each) => each.id === shortfall.cell)
  if (!cell) return much('question')
  const sort = [
    nameOf(cell.objective),
    cell.kind ? kindLabels[cell.kind] : '',
    cell.difficulty ? `Difficulty ${cell.difficulty}` : '',
    cell.level?.split(':')[1] ?? '',
  ].filter(Boolean)
  const wanted = lacks > 0 ? cell.count.atLeast : (cell.count.atMost ?? 0)
  return `${sort.join(', ') || 'Any question'}: ${wanted - lacks} of ${wanted}`
}
/** The editor with what a line asks for set already. */
function writeAt(shortfall: Shortfall): string {
  const cell = shortfall.of === 'cell' ? blueprint.cells.find((each) => each.id === shortfall.cell) : undefined
  const objective = shortfall.of === 'essential' ? shortfall.objective : cell?.objective
  const query = new URLSearchParams({
    kind: cell?.kind ?? 'choice',
    ...(objective ? { objective } : {}),
    ...(cell?.difficulty ? { difficulty: String(cell.difficulty) } : {}),
    ...(cell?.level ? { level: cell.level } : {}),
  })
  return `/bank/new?${query.toString()}`
}
const shortfalls = computed(() => proposal.shortfalls.filter(({ form }) => form === shown.value))
function toggle(id: string) {
  const next = new Set(out.value)
  if (!next.delete(id)) next.add(id)
  out.value = next
}
</script>

<template>
  <section aria-label="Proposal">
    <div class="flex flex-wrap items-baseline gap-x-4 border-b border-ink pb-1.5">
      <h2 class="text-xl">Proposal</h2>
      <span v-if="proposal.forms.length > 1" class="ml-auto flex gap-2 text-label">
        <button
          v-for="(_, form) in proposal.forms"
          :key="form"
          type="button"
          :class="form === shown ? 'font-semibold' : 'link'"
          :aria-pressed="form === shown"
          @click="shown = form"
        >
          form {{ letter(form) }}
        </button></span
      >
    </div>
    <p v-if="proposal.missing.length" class="note-stop mt-3">
      {{ count(proposal.missing.length, 'question') }} that {{ proposal.missing.length === 1 ? 'has' : 'have' }} to be
      in cannot be used any more.
    </p>
    <ul v-if="shortfalls.length" class="mt-3 space-y-2">
      <li v-for="(shortfall, i) in shortfalls" :key="i" class="note-stop">
        <p class="font-semibold">{{ lackWords(shortfall) }}</p>
        <p>
          This is the nearest that the bank can come.
          <NuxtLink
            v-if="shortfall.lacks > 0 && (shortfall.of === 'cell' || shortfall.of === 'essential')"
            class="font-semibold underline underline-offset-2"
            :to="writeAt(shortfall)"
            >Write one</NuxtLink
          ><template v-if="blueprint.unusedSince">
            ·
            <button type="button" class="font-semibold underline underline-offset-2" @click="emit('sooner')">
              allow those used since
            </button></template
          >
        </p>
      </li>
    </ul>
    <p v-if="!hits.length" class="mt-4 text-soft">No question fits what is asked.</p>
    <div v-for="group in groups" :key="group.title" class="mt-4">
      <h3
        v-if="group.title"
        class="flex items-baseline gap-3 border-b border-rule pb-1 font-sans text-base font-semibold"
      >
        {{ group.title }}
        <span class="ml-auto text-small font-normal text-soft"
          >{{ count(group.hits.length, 'question') }} · {{ inPoints(group.hits) }}</span
        >
      </h3>
      <ul>
        <li v-for="hit in group.hits" :key="hit.id" class="border-b border-rule">
          <label class="flex cursor-pointer items-baseline gap-3 py-1.5">
            <input
              type="checkbox"
              class="size-4 shrink-0 translate-y-0.5 accent-petrol"
              :checked="!out.has(hit.id)"
              @change="toggle(hit.id)"
            />
            <span class="min-w-0 grow font-serif" :class="out.has(hit.id) && 'text-soft line-through'">{{
              hit.title
            }}</span>
            <span class="shrink-0 text-right text-note text-soft"
              >{{ kindLabels[hit.kind] }} · {{ roughTime(hit.seconds) }} ·
              {{
                hit.right
                  ? `${percent(Math.round(hit.right.share * 100) / 100)} of ${hit.right.n}`
                  : `about ${percent(facilityOf(hit))}`
              }}</span
            >
          </label>
        </li>
      </ul>
    </div>
    <dl v-if="hits.length" class="mt-4 grid max-w-sm grid-cols-[1fr_auto_auto] gap-x-6 gap-y-1 text-label">
      <dt class="text-soft">Asked and got</dt>
      <dd class="text-right text-soft">asked</dd>
      <dd class="text-right text-soft">got</dd>
      <dt>questions</dt>
      <dd class="text-right">
        {{ blueprint.questions ? `${blueprint.questions.atLeast}–${blueprint.questions.atMost ?? ''}` : '–' }}
      </dd>
      <dd class="text-right font-semibold">{{ hits.length }}</dd>
      <dt>points</dt>
      <dd class="text-right">
        {{ blueprint.points ? `${blueprint.points.atLeast}–${blueprint.points.atMost ?? ''}` : '–' }}
      </dd>
      <dd class="text-right font-semibold">{{ pointsText(sums.points) }}</dd>
      <dt>minutes</dt>
      <dd class="text-right">
        {{ blueprint.minutes ? `${blueprint.minutes.atLeast}–${blueprint.minutes.atMost ?? ''}` : '–' }}
      </dd>
      <dd class="text-right font-semibold">{{ words(sums.minutes) }}</dd>
      <dt>right</dt>
      <dd class="text-right">{{ blueprint.facility === null ? '–' : percent(blueprint.facility) }}</dd>
      <dd class="text-right font-semibold">{{ words((proposal.facility[shown] ?? 0) * 100) }} %</dd>
    </dl>
    <p class="mt-3 text-small text-soft">
      From {{ count(proposal.candidates, 'question') }}{{ proposal.more ? ', those that were used longest ago' : '' }},
      in {{ words(proposal.seconds) }} s{{ proposal.proven ? '' : '. Time ran out: there may be a better one' }}.
    </p>
    <div class="mt-3 flex flex-wrap gap-2">
      <button type="button" class="btn btn-main" :disabled="!taken.length" @click="emit('take', taken)">
        Take {{ taken.length }} into the running order
      </button>
      <button
        v-if="proposal.forms.length > 1"
        type="button"
        class="btn"
        :disabled="!taken.length"
        @click="emit('form', letter(shown), taken)"
      >
        Make a quiz of form {{ letter(shown) }}
      </button>
      <button type="button" class="btn btn-quiet" @click="emit('leave')">Leave it</button>
    </div>
  </section>
</template>
