<script setup lang="ts">
import { count, duration } from '~~/core/kit/words'
import { gradeMethods, type Rules, type WrongCost } from '~~/core/quiz'

/** How often, which attempt counts, what passes, what a wrong answer and being late cost. */
const store = useQuiz()
const rules = computed(() => store.quiz!.rules)
const content = computed(() => store.quiz!.content)
const setRules = (values: Partial<Rules>) => store.make({ do: 'setRules', values })
const setAttempts = (values: Partial<Rules['attempts']>) =>
  setRules({ attempts: { ...rules.value.attempts, ...values } })
const setGrade = (values: Partial<Rules['grade']>) => setRules({ grade: { ...rules.value.grade, ...values } })
const several = computed(() => rules.value.attempts.count !== 1)
const hasDue = computed(() => rules.value.windows.some((window) => window.due))
const methods = {
  highest: 'the highest attempt',
  latest: 'the latest attempt',
  first: 'the first attempt',
  average: 'the average of all attempts',
  lowest: 'the lowest attempt',
}
const costWords = computed(
  () =>
    ({
      none: 'nothing',
      share: `${Math.round((content.value.wrongCost.by === 'share' ? content.value.wrongCost.share : 0) * 100)} % of its points`,
      formula: '1/(k − 1) of its points, for k options',
    })[content.value.wrongCost.by],
)
const setCost = (wrongCost: WrongCost) => store.make({ do: 'setContent', values: { wrongCost } })
const passBy = (by: 'percent' | 'points', value: number) => setGrade({ pass: { by, value } })
function passByNothing(close: () => void) {
  setGrade({ pass: null })
  close()
}
function costs(wrongCost: WrongCost, close: () => void) {
  setCost(wrongCost)
  close()
}
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1.5 text-xl">Attempts and marks</h2>
    <div class="mt-2 space-y-1.5 font-serif text-base leading-8">
      <p>
        Up to
        <SentenceNumber
          :model-value="rules.attempts.count"
          name="Attempts"
          :words="rules.attempts.count === null ? 'any number of attempts' : count(rules.attempts.count, 'attempt')"
          unit="attempts"
          :min="1"
          :max="100"
          none="Any number"
          @update:model-value="setAttempts({ count: $event })"
        /><template v-if="several"
          >, at least
          <SentenceNumber
            :model-value="rules.attempts.wait"
            name="Wait between attempts"
            :words="rules.attempts.wait ? duration(rules.attempts.wait) : 'no wait'"
            unit="minutes"
            :max="43200"
            :step="5"
            @update:model-value="setAttempts({ wait: $event ?? 0 })" /><template v-if="rules.attempts.wait">
            apart</template
          >, with
          <SentenceChoice
            :model-value="rules.attempts.draw"
            name="Further papers"
            :options="[
              { value: 'fresh', label: 'a fresh draw' },
              { value: 'same', label: 'the same paper' },
            ]"
            @update:model-value="setAttempts({ draw: $event })" />
          each time,
          <SentenceChoice
            :model-value="rules.attempts.untilPassed"
            name="Until passed"
            :options="[
              { value: false, label: 'whether passed or not' },
              { value: true, label: 'until passed' },
            ]"
            @update:model-value="setAttempts({ untilPassed: $event })" /></template
        >.
      </p>
      <p v-if="several">
        <SentenceChoice
          :model-value="rules.grade.method"
          name="Grading method"
          :options="gradeMethods.map((value) => ({ value, label: methods[value] }))"
          @update:model-value="setGrade({ method: $event })"
        />
        counts<template v-if="rules.attempts.cost || rules.grade.method !== 'first'"
          >; each further attempt costs
          <SentenceNumber
            :model-value="rules.attempts.cost"
            name="Cost of a further attempt"
            :words="rules.attempts.cost ? `${rules.attempts.cost} %` : 'nothing'"
            unit="% of what it earned"
            :max="100"
            :step="0.5"
            @update:model-value="setAttempts({ cost: $event ?? 0 })" /></template
        >.
      </p>
      <p>
        The grade has
        <SentenceChoice
          :model-value="rules.grade.decimals"
          name="Decimals"
          :options="
            [0, 1, 2, 3].map((value) => ({ value, label: value === 0 ? 'no decimals' : count(value, 'decimal') }))
          "
          @update:model-value="setGrade({ decimals: $event })"
        />.
      </p>
      <p>
        To pass takes
        <SentenceValue
          v-slot="{ close }"
          :words="
            rules.grade.pass
              ? `${rules.grade.pass.value}${rules.grade.pass.by === 'percent' ? ' %' : ' points'}`
              : 'nothing: there is no pass mark'
          "
          name="Pass mark"
        >
          <div class="space-y-2">
            <label class="flex items-center gap-2"
              ><input
                class="field w-24! py-1"
                type="number"
                min="0"
                step="0.5"
                aria-label="Pass mark"
                :value="rules.grade.pass?.value ?? 60"
                @change="passBy(rules.grade.pass?.by ?? 'percent', Number(($event.target as HTMLInputElement).value))"
              />
              <select
                class="field w-36! py-1"
                aria-label="Pass mark in"
                :value="rules.grade.pass?.by ?? 'percent'"
                @change="
                  passBy(
                    ($event.target as HTMLSelectElement).value as 'percent' | 'points',
                    rules.grade.pass?.value ?? 60,
                  )
                "
              >
                <option value="percent">percent</option>
                <option value="points">points</option>
              </select></label
            >
            <button class="btn" @click="passByNothing(close)">No pass mark</button>
          </div> </SentenceValue
        >.
      </p>
      <p>
        A wrong answer to a single choice costs
        <SentenceValue v-slot="{ close }" :words="costWords" name="Cost of a wrong answer">
          <label class="flex items-center gap-2 py-0.5"
            ><input
              type="radio"
              class="accent-petrol"
              name="wrong"
              :checked="content.wrongCost.by === 'none'"
              @change="costs({ by: 'none' }, close)"
            />
            nothing</label
          >
          <label class="flex items-center gap-2 py-0.5"
            ><input
              type="radio"
              class="accent-petrol"
              name="wrong"
              :checked="content.wrongCost.by === 'share'"
              @change="setCost({ by: 'share', share: 0.25 })"
            />
            <input
              class="field w-20! py-0.5"
              aria-label="Percent of its points"
              type="number"
              min="0"
              max="100"
              :value="content.wrongCost.by === 'share' ? Math.round(content.wrongCost.share * 100) : 25"
              @change="setCost({ by: 'share', share: Number(($event.target as HTMLInputElement).value) / 100 })"
            />
            % of its points</label
          >
          <label class="flex items-center gap-2 py-0.5"
            ><input
              type="radio"
              class="accent-petrol"
              name="wrong"
              :checked="content.wrongCost.by === 'formula'"
              @change="costs({ by: 'formula' }, close)"
            />
            1/(k − 1) of its points, for k options</label
          > </SentenceValue
        >.
      </p>
      <p v-if="hasDue">
        After the due time,
        <SentenceChoice
          :model-value="rules.late.accepted"
          name="Late papers"
          :options="[
            { value: true, label: 'accept and mark as late' },
            { value: false, label: 'late is not possible' },
          ]"
          @update:model-value="setRules({ late: { ...rules.late, accepted: $event } })"
        /><template v-if="rules.late.accepted"
          >; each day begun costs
          <SentenceNumber
            :model-value="rules.late.costPerDay"
            name="Late cost"
            :words="rules.late.costPerDay ? `${rules.late.costPerDay} %` : 'nothing'"
            unit="% of what was earned"
            :max="100"
            :step="0.5"
            @update:model-value="setRules({ late: { ...rules.late, costPerDay: $event ?? 0 } })" /></template
        >.
      </p>
    </div>
  </section>
</template>
