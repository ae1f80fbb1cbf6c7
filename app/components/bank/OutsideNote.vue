<script setup lang="ts">
import { questionRoutes } from '~/client/questions'
import type { Difference } from '~~/core/question/difference'
import type { QuestionDetail } from '~~/server/domain/bank/questions/questions'

/** Where a question of others, or a copy of one, is from: taking it, reporting a fault, and its keeper's correction. */
const { detail } = defineProps<{ detail: QuestionDetail }>()
const emit = defineEmits<{ changed: [] }>()
const fault = ref<string | null>(null)
const correction = shallowRef<Difference[] | null>(null)
const { problem, act } = useAct()
watch(
  () => detail.takenFrom?.corrected,
  (is) =>
    act(async () => {
      correction.value = is ? await questionRoutes.correction({ id: detail.id }) : null
    }),
  { immediate: true },
)
const take = () =>
  act(async () => {
    await navigateTo(`/bank/${(await questionRoutes.take({ id: detail.id })).id}`)
  })
const report = () =>
  act(async () => {
    await questionRoutes.reportFault({ id: detail.id, body: { words: fault.value ?? '' } })
    fault.value = null
    announce('Reported to its keeper. A correction will be offered to you.')
  })
const answer = (taken: boolean) =>
  act(async () => {
    await questionRoutes.takeCorrection({ id: detail.id, body: { take: taken } })
    announce(taken ? 'The correction is a new version; the one before is kept.' : 'Left as it is.')
    emit('changed')
  })
</script>

<template>
  <section v-if="detail.origin || detail.takenFrom" class="note-look mt-3 space-y-3" aria-label="Where it is from">
    <p v-if="problem" role="alert" class="text-red">{{ problem }}</p>
    <div v-if="detail.origin" class="flex flex-wrap items-center gap-3">
      <span
        >From <strong>{{ detail.origin.bank }}</strong>, chosen by {{ detail.origin.chosen }}
        {{ detail.origin.chosen === 1 ? 'school' : 'schools' }}. It is read here; a copy is yours to change.</span
      >
      <NuxtLink v-if="detail.origin.copy" class="link" :to="`/bank/${detail.origin.copy}`">Our copy</NuxtLink
      ><button v-else type="button" class="btn btn-main" @click="take">Take it into our bank</button>
    </div>
    <p v-else>
      A copy out of <strong>{{ detail.takenFrom!.bank }}</strong>.
    </p>
    <div v-if="correction" class="border-l-4 border-petrol-mid pl-4">
      <p class="font-semibold">Its keeper has corrected it.</p>
      <p v-if="!correction.length">Nothing that you have differs.</p>
      <p v-for="each in correction" :key="each.part">
        <span class="text-soft">{{ each.part }}:</span> <DifferencePieces :pieces="each.pieces" />
      </p>
      <p class="mt-2 flex gap-2">
        <button type="button" class="btn btn-main" @click="answer(true)">Take the correction over</button
        ><button type="button" class="btn" @click="answer(false)">Leave ours as it is</button>
      </p>
    </div>
    <button v-if="fault === null" type="button" class="link" @click="fault = ''">Report a fault to its keeper</button>
    <form v-else class="space-y-2" @submit.prevent="report">
      <textarea v-model="fault" class="field" rows="2" maxlength="4000" required aria-label="What is wrong" />
      <p class="flex gap-2">
        <button class="btn btn-main">Report it</button
        ><button type="button" class="btn" @click="fault = null">Leave it</button>
      </p>
    </form>
  </section>
</template>
