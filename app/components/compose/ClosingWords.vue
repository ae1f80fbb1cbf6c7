<script setup lang="ts">
import { pointsText } from '~~/core/kit/exact'
import { bandsFor, closingFaults, placeholders, readBoundary, unknownPlaceholders } from '~~/core/quiz/closing'
import { addTo, removeFrom, setAt } from '~~/core/quiz/edits'

/** What students read after handing in: what to do next, and words for each band of scores. */
const store = useQuiz()
const content = computed(() => store.quiz!.content)
const bands = computed(() => bandsFor(content.value.closing))
const faults = computed(() => closingFaults(content.value.closing))
const unknown = computed(() => [
  ...new Set([content.value.after, ...content.value.closing.map(({ html }) => html)].flatMap(unknownPlaceholders)),
])
const named = (names: readonly string[]) => names.map((name) => `{${name}}`).join(', ')
const typed = ref('')
const problem = ref('')
const percent = (value: number) => `${pointsText(value)} %`

function boundary(text: string): number | null {
  const read = readBoundary(text)
  problem.value = read === null ? 'Write a boundary in percent, such as 85, 85 % or 85.5.' : ''
  return read
}
function add() {
  const from = boundary(typed.value)
  if (from === null) return
  if (content.value.closing.some((band) => band.from === from)) {
    problem.value = `There are words from ${percent(from)} already.`
    return
  }
  const last = content.value.closing.at(-1)?.id ?? null
  store.make(addTo(['content', 'closing'], last, [{ id: newRowId(), from, html: '' }]))
  typed.value = ''
}
function setFrom(id: string, event: Event) {
  const field = event.target as HTMLInputElement
  const from = boundary(field.value)
  const before = content.value.closing.find((band) => band.id === id)!.from
  if (from === null) field.value = percent(before)
  else if (from !== before) store.make(setAt(store.quiz!, ['content', 'closing', id, 'from'], from))
}
function remove(id: string) {
  store.make(removeFrom(store.quiz!, ['content', 'closing'], [id]))
  announce('These words are taken out.', store.undo)
}
</script>

<template>
  <div class="space-y-4 bg-sheet p-4">
    <div>
      <span class="label">To everybody, at once: what to do next</span>
      <KeptText
        label="What students read after handing in"
        :model-value="content.after"
        @keep="store.make(setAt(store.quiz!, ['content', 'after'], $event))"
      />
    </div>
    <div>
      <p class="label">By score, once the score is shown</p>
      <ul class="space-y-3">
        <li v-for="band in bands" :key="band.id">
          <p class="mb-1 flex flex-wrap items-baseline gap-x-2">
            from
            <input
              class="field w-20! py-0.5"
              :value="percent(band.from)"
              aria-label="From this score on"
              @change="setFrom(band.id, $event)"
            />
            <span class="text-soft">{{ band.below === null ? 'to 100 %' : `to below ${percent(band.below)}` }}</span>
            <button class="link ml-auto" @click="remove(band.id)">take out</button>
          </p>
          <KeptText
            slim
            :label="`Words from ${percent(band.from)}`"
            :model-value="band.html"
            @keep="store.make(setAt(store.quiz!, ['content', 'closing', band.id, 'html'], $event))"
          />
        </li>
      </ul>
      <form class="mt-2 flex items-center gap-2" @submit.prevent="add">
        <input
          v-model="typed"
          class="field w-20! py-1"
          placeholder="85 %"
          aria-label="Words from this score on"
        /><button class="btn py-1" :disabled="!typed.trim()">Add words from there</button>
      </form>
      <ProblemNote class="mt-1" :words="problem" />
      <p v-if="faults.gap !== null" class="note-look mt-2">
        Below {{ percent(faults.gap) }} nothing is said. Add words from 0 % if somebody should be told something there.
      </p>
      <p v-if="faults.overlap !== null" class="note-look mt-2">
        Two bands begin at {{ percent(faults.overlap) }}: only one of them is read. Give one another boundary.
      </p>
    </div>
    <p class="text-note text-soft">In all these words {{ named(placeholders) }} stand for those of the student.</p>
    <p v-if="unknown.length" class="note-look">
      {{ named(unknown) }} {{ unknown.length === 1 ? 'stands' : 'stand' }} for nothing and will be read as it is
      written.
    </p>
  </div>
</template>
