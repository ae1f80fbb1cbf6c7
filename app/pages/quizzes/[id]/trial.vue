<script setup lang="ts">
import { sizesOf } from '~~/core/figures'
import { chance, count, duration, percent } from '~~/core/kit/phrases'
import { drawRows, fixedQuestions } from '~~/core/quiz/walk'
import type { Cut } from '~~/core/trial/sit'
import { emptySum, minutesAt, plusSum, type TrialSum } from '~~/core/trial/sum'
import { quizRoutes } from '~/client/quizzes'

/** A trial run: simulated students sit the quiz, and what became of them is told, in words first. */
const store = useQuiz()
const id = store.id!
const atOnce = 100

const many = ref(1000)
const abilities = [
  { value: 'class', label: 'a mixed class', mean: 0, deviation: 1 },
  { value: 'usual', label: 'usual students', mean: 0, deviation: 0 },
  { value: 'weak', label: 'weak students', mean: -1.5, deviation: 0.5 },
  { value: 'strong', label: 'strong students', mean: 1.5, deviation: 0.5 },
] as const
const ability = ref<(typeof abilities)[number]['value']>('class')
const lose = ref(10)
const sum = shallowRef<TrialSum | null>(null)
const done = ref(0)
const { problem, busy, act } = useAct()
let stopped = new AbortController()

const content = computed(() => (store.view?.state === 'draft' || store.view?.ahead ? 'written' : 'open'))
async function run() {
  stopped = new AbortController()
  sum.value = emptySum()
  done.value = 0
  const { mean, deviation } = abilities.find(({ value }) => value === ability.value)!
  await act(async () => {
    const all = Math.min(100_000, Math.max(1, Math.round(many.value)))
    for (let from = 0; from < all && !stopped.signal.aborted; from += atOnce) {
      const body = {
        content: content.value as 'written' | 'open',
        from,
        count: Math.min(atOnce, all - from),
        students: { mean, deviation, lose: lose.value / 100 },
      }
      const part = await quizRoutes.trial({ id, body, signal: stopped.signal }).catch((error: unknown) => {
        if (stopped.signal.aborted) return null
        throw error
      })
      if (!part) return
      sum.value = plusSum(sum.value!, part)
      done.value = from + body.count
    }
  })
}
const stop = () => stopped.abort()
onBeforeUnmount(stop)

const share = (n: number, of: number) => chance(of ? n / of : 0)
const minutes = (n: number | null) => (n === null ? '' : duration(Math.round(n)))
const cutWords: Record<Cut, string> = {
  clock: 'ran out of time',
  window: 'were stopped by the end of the window before their time was up',
  due: 'were stopped by the due time before their time was up',
  section: 'ran out of time in a section with a clock of its own',
  connection: 'had no connection when their time was up: what they wrote then did not arrive',
}
const cuts = computed(() =>
  Object.entries(sum.value?.cut ?? {})
    .filter(([, { sittings }]) => sittings)
    .map(([cut, { sittings, questions }]) => ({ words: cutWords[cut as Cut], sittings, questions })),
)
const passAt = computed(() => {
  const pass = store.quiz?.rules.grade.pass
  if (!pass || !store.met) return null
  return pass.by === 'percent' ? pass.value / 100 : pass.value / Math.max(1, sizesOf(store.met.content).points)
})
const twentieths = computed(() => sum.value?.twentieths.map((n) => n / Math.max(1, sum.value!.shares.n)) ?? [])

/** How often each question of a pool came, beside how often it would on average. */
const pools = computed(() => {
  if (!store.met || !sum.value?.sat) return []
  const claimed = new Set(fixedQuestions(store.met.content))
  return drawRows(store.met.content).map((row) => {
    const holds = [...new Set(row.questions)].filter((question) => !claimed.has(question))
    const came = holds.map((question) => ({
      question,
      title: store.facts.get(question)?.internalName || store.facts.get(question)?.title || 'A question',
      n: sum.value!.came[question] ?? 0,
    }))
    return {
      id: row.id,
      draw: row.draw,
      held: holds.length,
      came: came.sort((a, b) => b.n - a.n),
      expected: Math.round((sum.value!.sat * Math.min(row.draw, holds.length)) / Math.max(1, holds.length)),
    }
  })
})
</script>

<template>
  <div class="mx-auto max-w-5xl space-y-6">
    <p class="text-label">
      <NuxtLink class="link" :to="`/quizzes/${id}/rehearse`">Rehearse</NuxtLink>
    </p>
    <div>
      <h2 class="text-2xl">Trial run</h2>
      <p class="mt-1 max-w-3xl text-soft">
        Simulated students sit the quiz, each with the times of one of your students, each at a speed of their own.
        Their answers are right by the chance that is known, or assumed, of each question. Nothing of it is kept.
      </p>
    </div>
    <form class="flex flex-wrap items-end gap-x-5 gap-y-3 border-b border-ink pb-4" @submit.prevent="run">
      <LabelledField label="Sittings" class="w-28"
        ><input v-model.number="many" class="field" type="number" min="1" max="100000" required
      /></LabelledField>
      <LabelledField label="By" class="w-44"
        ><select v-model="ability" class="field">
          <option v-for="each in abilities" :key="each.value" :value="each.value">{{ each.label }}</option>
        </select></LabelledField
      >
      <LabelledField label="Lose the connection, in %" class="w-52"
        ><input v-model.number="lose" class="field" type="number" min="0" max="100" required
      /></LabelledField>
      <button v-if="!busy" class="btn btn-main">Run</button>
      <button v-else type="button" class="btn" @click="stop">Stop</button>
    </form>
    <ProblemNote :words="problem" />
    <div v-if="busy || sum" role="status" class="text-label text-soft">
      <progress v-if="busy" class="mr-3 h-2 w-60 align-middle accent-petrol" :value="done" :max="many" />
      {{ count(done, 'sitting') }} of {{ many }}{{ busy ? ' …' : done < many ? ', stopped' : '' }}
    </div>
    <EmptyNote v-if="!sum" title="Nothing has been tried yet">
      A thousand sittings take a few seconds. You will read how scores spread, who ran out of time, how often each
      question of a pool came, and whether any rule cut anybody off.
    </EmptyNote>
    <div v-else-if="sum.sat" class="grid gap-x-10 gap-y-8 lg:grid-cols-2">
      <section>
        <h3 class="border-b border-rule pb-1 text-xl">Scores</h3>
        <p v-if="sum.shares.n" class="mt-2">
          On average {{ percent(Math.round((sum.shares.sum / sum.shares.n) * 1000) / 1000) }} of the points<template
            v-if="sum.passed.n"
            >; {{ share(sum.passed.passed, sum.passed.n) }} passed</template
          >.
        </p>
        <p v-else class="mt-2 text-soft">Nothing of this quiz is marked by points.</p>
        <LazyForecastChart v-if="sum.shares.n" :twentieths="twentieths" :pass-at="passAt" />
      </section>
      <section>
        <h3 class="border-b border-rule pb-1 text-xl">Time</h3>
        <p class="mt-2">
          Half were done in {{ minutes(minutesAt(sum, 0.5)) }}, nine in ten in {{ minutes(minutesAt(sum, 0.9))
          }}<template v-if="store.quiz?.rules.limit">; the clock gives {{ duration(store.quiz.rules.limit) }}</template
          >.
        </p>
        <ul class="mt-2 space-y-1.5">
          <li v-for="each in cuts" :key="each.words" class="note-look">
            {{ count(each.sittings, 'student') }} ({{ share(each.sittings, sum.sat) }}) {{ each.words }}:
            {{ count(each.questions, 'question') }} in all.
          </li>
          <li v-if="sum.over">{{ count(sum.over, 'student') }} went on after the deadline, as they may.</li>
          <li v-if="sum.failed['no start']" class="note-look">
            {{ count(sum.failed['no start'], 'student') }} could not start at any time.
          </li>
          <li v-if="!cuts.length" class="text-green">✓ No rule cut anybody off.</li>
        </ul>
        <p v-if="cuts.length" class="mt-2">
          <NuxtLink class="link" :to="`/quizzes/${id}/rules`">Change the times in Rules</NuxtLink>
        </p>
      </section>
      <section v-if="pools.length" class="lg:col-span-2">
        <h3 class="border-b border-rule pb-1 text-xl">Questions of the pools</h3>
        <details v-for="(pool, i) in pools" :key="pool.id" class="border-b border-rule py-2">
          <summary class="cursor-pointer">
            Pool {{ i + 1 }}, {{ pool.draw }} of {{ pool.held }}: each came between {{ pool.came.at(-1)?.n ?? 0 }} and
            {{ pool.came[0]?.n ?? 0 }} times; on average {{ pool.expected }} times.
          </summary>
          <table class="mt-2 w-full text-label">
            <tbody>
              <tr v-for="each in pool.came" :key="each.question" class="border-t border-rule/60">
                <td class="max-w-0 truncate py-0.5 pr-4">{{ each.title }}</td>
                <td class="w-20 text-right tabular-nums">{{ each.n }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </section>
    </div>
    <p v-else-if="!busy" class="note-look">
      {{
        sum.failed['no paper']
          ? 'No paper can be made: the pools hold too few questions. The checks say which.'
          : 'Nobody could start it at any time. The checks say why.'
      }}
    </p>
  </div>
</template>
