<script setup lang="ts">
import { stimulusRoutes } from '~/client/stimuli'
import type { StimulusDetail } from '~~/server/domain/bank/material/stimuli'

/** What a question shares with others; its text goes to the preview. */
const { chosen } = defineProps<{ chosen: string | null }>()
const emit = defineEmits<{ 'update:chosen': [string | null]; shown: [string] }>()
const detail = shallowRef<StimulusDetail | null>(null)
const choosing = ref(false)
const { problem, act } = useAct()
watch(
  () => chosen,
  async (id) => {
    if (id === null) detail.value = null
    else if (detail.value?.id !== id)
      await act(async () => {
        const found = await stimulusRoutes.get({ id })
        if (id === chosen) detail.value = found
      })
    emit('shown', detail.value?.shown ?? '')
  },
  { immediate: true },
)
function take(found: StimulusDetail) {
  detail.value = found
  choosing.value = false
  emit('update:chosen', found.id)
  emit('shown', found.shown)
}
</script>

<template>
  <div>
    <p class="flex flex-wrap items-center gap-3 text-label">
      <template v-if="detail && chosen"
        >On the stimulus
        <NuxtLink class="link" :to="`/bank/stimuli/${detail.id}`">{{ detail.stimulus.name }}</NuxtLink><button
          type="button"
          class="btn py-0.5"
          @click="emit('update:chosen', null)"
        >
          Take it off
        </button></template
      >
      <button v-else type="button" class="btn py-0.5" @click="choosing = true">Put it on a stimulus …</button>
    </p>
    <ProblemNote :words="problem" />
    <StimulusDialog :open="choosing" @close="choosing = false" @choose="take" />
  </div>
</template>
