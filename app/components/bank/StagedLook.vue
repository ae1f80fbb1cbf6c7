<script setup lang="ts">
import { importRoutes } from '~/client/imports'
import type { StagedQuestion } from '~~/server/domain/imports/batch'

/** A question that would come in, as a student would see it; an answer can be tried. */
const { batch, index } = defineProps<{ batch: string; index: number }>()
const found = shallowRef<StagedQuestion | null>(null)
const { problem, act } = useAct()
onMounted(() =>
  act(async () => {
    found.value = await importRoutes.question({ id: batch, index })
  }),
)
</script>

<template>
  <div class="mt-3 border-l-4 border-petrol-mid pl-4">
    <ProblemNote v-if="problem" :words="problem" />
    <p v-else-if="!found" class="text-soft" role="status">Loading …</p>
    <QuestionPreview v-else :question="found.question" :shared="found.shared" />
  </div>
</template>
