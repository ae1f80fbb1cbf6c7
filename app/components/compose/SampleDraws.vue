<script setup lang="ts">
import { seededRandom } from '~~/core/kit/random'
import { drawPools } from '~~/core/paper/draw'
import { stratumFor } from '~~/core/paper/spread'
import type { PoolRow } from '~~/core/quiz'
import { fixedQuestions } from '~~/core/quiz/walk'

/** Three draws of a pool, as three students may get them. */
const { pool } = defineProps<{ pool: PoolRow }>()
const store = useQuiz()
const turn = ref(0)
const draws = computed(() => {
  const claimed = new Set(fixedQuestions(store.met!.content))
  const stratum = stratumFor(pool, (question) => store.facts.get(question))
  const demand = { id: pool.id, holds: pool.questions, draw: pool.draw, ...(stratum ? { stratum } : {}) }
  try {
    return [1, 2, 3].map(
      (n) =>
        drawPools([demand], claimed, null, seededRandom('00', [pool.id, String(turn.value), String(n)])).get(pool.id) ??
        [],
    )
  } catch {
    return []
  }
})
const titleOf = (id: string) => store.facts.get(id)?.title ?? 'a question that is gone'
</script>

<template>
  <div>
    <div class="grid gap-3 sm:grid-cols-3">
      <ol v-for="(draw, i) in draws" :key="i" class="border-t border-rule pt-1 text-small">
        <li v-for="id in draw" :key="id" class="line-clamp-2 py-0.5 font-serif">{{ titleOf(id) }}</li>
      </ol>
    </div>
    <p v-if="!draws.length" class="text-small text-soft">It holds too few questions to draw from.</p>
    <button class="link mt-1 text-small" @click="turn++">three others</button>
  </div>
</template>
