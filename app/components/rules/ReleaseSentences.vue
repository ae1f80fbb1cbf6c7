<script setup lang="ts">
import { fromLocal, toLocal } from '~~/core/kit/local-time'
import { duration, sentenceTime } from '~~/core/kit/words'
import {
  facetLabels,
  facetNames,
  momentLabels,
  type FacetName,
  type FacetRule,
  type MomentName,
} from '~~/core/release/schema'

/** From which moment each facet is shown, and under what conditions. */
const store = useQuiz()
const session = useSession()
const release = computed(() => store.quiz!.rules.release)
const set = (name: FacetName, values: Partial<FacetRule>) =>
  store.make({
    do: 'setRules',
    values: { release: { ...release.value, [name]: { ...release.value[name], ...values } } },
  })
function setMoment(name: FacetName, at: MomentName) {
  if (at === 'instant') set(name, { from: { at, instant: serverTime() } })
  else if (at === 'never' || at === 'teacher') set(name, { from: { at } })
  else set(name, { from: { at, offset: 0 } })
}
const value = (event: Event) => (event.target as HTMLInputElement).value
function words(rule: FacetRule): string {
  const base = rule.from.at === 'instant' ? sentenceTime(rule.from.instant, session.zone) : momentLabels[rule.from.at]
  const offset = 'offset' in rule.from && rule.from.offset ? `${duration(rule.from.offset)} after: ` : ''
  return [
    offset + base,
    rule.until ? `until ${sentenceTime(rule.until, session.zone)}` : '',
    rule.once ? 'once' : '',
    rule.ifPassed ? 'if passed' : '',
  ]
    .filter(Boolean)
    .join(', ')
}
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1.5 text-xl">What students see afterwards</h2>
    <dl class="mt-2 grid grid-cols-[auto_1fr] items-baseline gap-x-4 font-serif text-base leading-8">
      <template v-for="name in facetNames" :key="name">
        <dt>{{ facetLabels[name] }}</dt>
        <dd>
          <SentenceValue :words="words(release[name])" :name="facetLabels[name]">
            <div class="space-y-2">
              <label class="label"
                >From<select
                  class="field py-1 font-normal"
                  :value="release[name].from.at"
                  @change="setMoment(name, value($event) as MomentName)"
                >
                  <option v-for="(label, at) in momentLabels" :key="at" :value="at">{{ label }}</option>
                </select></label
              >
              <label v-if="release[name].from.at === 'instant'" class="label"
                >Time<input
                  class="field py-1"
                  type="datetime-local"
                  :value="toLocal((release[name].from as { instant: string }).instant, session.zone)"
                  @change="
                    value($event) &&
                    set(name, { from: { at: 'instant', instant: fromLocal(value($event), session.zone) } })
                  "
              /></label>
              <label v-if="'offset' in release[name].from" class="label"
                >Minutes after that<input
                  class="field py-1"
                  type="number"
                  min="0"
                  :value="(release[name].from as { offset: number }).offset"
                  @change="
                    set(name, { from: { ...release[name].from, offset: Number(value($event)) } as FacetRule['from'] })
                  "
              /></label>
              <template v-if="release[name].from.at !== 'never'">
                <label class="label"
                  >Until<input
                    class="field py-1"
                    type="datetime-local"
                    :value="release[name].until ? toLocal(release[name].until!, session.zone) : ''"
                    @change="set(name, { until: value($event) ? fromLocal(value($event), session.zone) : null })"
                /></label>
                <label class="flex items-center gap-2"
                  ><input
                    type="checkbox"
                    class="accent-petrol"
                    :checked="release[name].once"
                    @change="set(name, { once: !release[name].once })"
                  />
                  one viewing only</label
                >
                <label class="flex items-center gap-2"
                  ><input
                    type="checkbox"
                    class="accent-petrol"
                    :checked="release[name].ifPassed"
                    @change="set(name, { ifPassed: !release[name].ifPassed })"
                  />
                  only when passed</label
                >
              </template>
            </div>
          </SentenceValue>
        </dd>
      </template>
    </dl>
  </section>
</template>
