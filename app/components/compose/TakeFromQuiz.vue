<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'
import { count } from '~~/core/kit/phrases'
import type { QuizLook } from '~~/server/domain/quizzes/look'

/** Finds an earlier quiz and takes single rows or whole sections out of it. */
const { place, quiz } = defineProps<{
  place: string
  /** The one that is composed: nothing is taken from itself. */ quiz: string
}>()
const emit = defineEmits<{ close: []; take: [look: QuizLook, rows: string[]] }>()
const { query, items, more, isReady, error, next } = useQuizSearch('all')
const found = computed(() => items.value.filter(({ id }) => id !== quiz))
const look = shallowRef<QuizLook | null>(null)
const chosen = ref<string[]>([])
const { problem, busy, act } = useAct()
const open = (id: string) =>
  act(async () => {
    look.value = await quizRoutes.look({ id })
    chosen.value = []
  })
</script>

<template>
  <SidePanel open title="Take from an earlier quiz" @close="emit('close')">
    <template #acts>
      <button v-if="look" class="btn btn-main" :disabled="!chosen.length" @click="emit('take', look, chosen)">
        {{ chosen.length ? `Take ${count(chosen.length, 'row')} ${place}` : 'Choose rows to take' }}
      </button>
    </template>
    <div class="grid gap-x-8 gap-y-4 md:grid-cols-[minmax(0,18rem)_1fr]">
      <div>
        <LabelledField label="Find a quiz"
          ><input v-model="query.words" class="field" type="search" placeholder="title, tag, term"
        /></LabelledField>
        <ProblemNote class="mt-2" :words="problem || (error ? sentenceOf(error) : '')" />
        <ul class="mt-2 border-t border-rule">
          <li v-for="each in found" :key="each.id" class="border-b border-rule">
            <button
              class="block w-full px-1 py-2 text-left"
              :class="look?.id === each.id ? 'bg-bloom-tint' : 'hover:bg-sheet'"
              :aria-current="look?.id === each.id"
              :disabled="busy"
              @click="open(each.id)"
            >
              <span class="font-serif">{{ each.title }}</span>
              <span class="block text-note text-soft"
                >{{ each.mine ? 'mine' : each.ownerName }}<template v-if="each.term"> · {{ each.term }}</template></span
              >
            </button>
          </li>
        </ul>
        <p v-if="isReady && !found.length" class="py-3 text-soft">No quiz is found. Try fewer words.</p>
        <button v-if="more" class="btn mt-2" @click="next">Show older quizzes</button>
      </div>
      <div>
        <template v-if="look">
          <h2 class="text-xl">{{ look.title }}</h2>
          <QuizOutline v-model="chosen" :look="look" />
        </template>
        <p v-else class="text-soft">Choose a quiz to see what it holds.</p>
      </div>
    </div>
  </SidePanel>
</template>
