<script setup lang="ts">
import { count } from '~~/core/kit/phrases'
import { pointsText } from '~~/core/kit/exact'
import { plainText } from '~~/core/question/allowed-html'
import type { Row } from '~~/core/quiz'
import { allRows, gives, pointsOf, questionsOf, rowPoints, rowSize } from '~~/core/quiz/walk'
import type { QuizLook } from '~~/server/domain/quizzes/look'

/** What a quiz holds, section by section; rows can be chosen where somebody takes from it. */
const { look } = defineProps<{ look: QuizLook }>()
/** Ids of the rows that are chosen; without it nothing can be chosen. */
const chosen = defineModel<string[]>()
const titles = computed(() => new Map(look.questions.map((hit) => [hit.id, hit.title])))
const opened = ref<string | null>(null)
const title = (row: Row): string => {
  switch (row.type) {
    case 'question':
      return titles.value.get(row.question) ?? 'A question that is no longer in the bank'
    case 'pool':
      return `Draw ${row.draw} of ${questionsOf(row).length}${row.title ? ` · ${row.title}` : ''}${row.condition ? ' · by a condition' : ''}`
    case 'stimulus':
      return `${row.draw} of ${count(row.questions.length, 'question')} on one stimulus`
    case 'text':
      return plainText(row.html) || 'An empty text'
    case 'break':
      return 'Page break'
  }
}
const size = computed(() => allRows(look.content).reduce((all, row) => all + rowSize(row), 0))
function toggle(ids: string[], on: boolean) {
  const rest = (chosen.value ?? []).filter((id) => !ids.includes(id))
  chosen.value = on ? [...rest, ...ids] : rest
}
const isChosen = (ids: string[]) => ids.length > 0 && ids.every((id) => chosen.value?.includes(id))
</script>

<template>
  <div>
    <p class="text-label text-soft">
      {{ look.ownerName }} · {{ count(size, 'question') }} ·
      {{ count(Number(pointsText(pointsOf(allRows(look.content)))), 'point') }}
      <template v-if="look.filing.term"> · {{ look.filing.term }}</template>
      <template v-if="look.filing.tags.length"> · {{ look.filing.tags.join(', ') }}</template>
    </p>
    <p v-if="look.filing.description" class="mt-1 whitespace-pre-line font-serif">{{ look.filing.description }}</p>
    <p v-if="look.hidden" class="note-look mt-2">
      {{ count(look.hidden, 'question') }} {{ look.hidden === 1 ? 'is' : 'are' }} not shared with you, and
      {{ look.hidden === 1 ? 'does' : 'do' }} not come along.
    </p>
    <section v-for="section in look.content.sections" :key="section.id" class="mt-4">
      <h3 class="flex items-baseline gap-2 border-b border-ink pb-1 font-serif text-lg font-semibold">
        <input
          v-if="chosen"
          type="checkbox"
          class="accent-petrol"
          :aria-label="`The whole section ${section.title}`"
          :checked="isChosen(section.rows.map(({ id }) => id))"
          :disabled="!section.rows.length"
          @change="
            toggle(
              section.rows.map(({ id }) => id),
              ($event.target as HTMLInputElement).checked,
            )
          "
        />
        <span class="min-w-0 grow [overflow-wrap:anywhere]">{{ section.title }}</span>
        <span class="font-sans text-label font-normal text-soft">{{
          section.order === 'kept' ? 'order kept' : 'shuffled'
        }}</span>
      </h3>
      <ul>
        <li v-for="row in section.rows" :key="row.id" class="border-b border-rule py-1.5">
          <div class="flex items-baseline gap-2">
            <input
              v-if="chosen"
              type="checkbox"
              class="accent-petrol"
              :aria-label="title(row)"
              :checked="chosen.includes(row.id)"
              @change="toggle([row.id], ($event.target as HTMLInputElement).checked)"
            />
            <span class="min-w-0 grow font-serif" :class="row.type === 'break' && 'text-soft'">{{ title(row) }}</span>
            <button
              v-if="questionsOf(row).length"
              class="link text-note"
              :aria-expanded="opened === row.id"
              :aria-label="`${opened === row.id ? 'Close' : 'Read'}: ${title(row).slice(0, 60)}`"
              @click="opened = opened === row.id ? null : row.id"
            >
              {{ opened === row.id ? 'close' : 'read' }}
            </button>
            <span class="w-10 text-right text-label">{{ gives(row) ? rowPoints(row) : '' }}</span>
          </div>
          <template v-if="opened === row.id">
            <WholeQuestion v-if="row.type === 'question'" :id="row.question" class="my-2" />
            <ul v-else class="my-1 pl-5 text-label">
              <li v-for="id in questionsOf(row)" :key="id" class="border-b border-rule py-0.5 font-serif">
                {{ titles.get(id) ?? 'A question that is no longer in the bank' }}
              </li>
            </ul>
          </template>
        </li>
      </ul>
      <p v-if="!section.rows.length" class="py-2 text-soft">Nothing in it.</p>
    </section>
  </div>
</template>
