<script setup lang="ts">
import type { SealedBody } from '~~/core/question/kinds/sealed'
import { keepRecordingKey, type Response } from './response'

/** An answer in sound. What could not be sent stays here and can be sent again; a preview keeps nothing. */
const { body, answer, readonly } = defineProps<{
  body: Extract<SealedBody, { asks: 'recording' }>
  answer: Response | null
  labelledby: string
  readonly: boolean
}>()
const keep = inject(keepRecordingKey, null)
const state = ref<'still' | 'sending' | 'unsent'>('still')
const unsent = ref('')
const local = ref<string | null>(null)
let kept: { sound: Blob; seconds: number } | null = null
const { recording, elapsed, problem, start, stop } = useRecorder(
  () => body.seconds,
  (sound, seconds) => {
    kept = { sound, seconds }
    void send()
  },
)

async function send() {
  if (!kept) return
  if (local.value) URL.revokeObjectURL(local.value)
  local.value = URL.createObjectURL(kept.sound)
  if (!keep) {
    state.value = 'still'
    return
  }
  state.value = 'sending'
  unsent.value = ''
  try {
    await keep(kept.sound, Math.round(kept.seconds * 10) / 10)
    state.value = 'still'
    kept = null
  } catch (error) {
    state.value = 'unsent'
    unsent.value = sentenceOf(error)
  }
}
onBeforeUnmount(() => {
  if (local.value) URL.revokeObjectURL(local.value)
})
const source = computed(() => local.value ?? answer?.sound ?? null)
</script>

<template>
  <div role="group" :aria-labelledby="labelledby" class="space-y-2">
    <div v-if="!readonly" class="flex flex-wrap items-center gap-3">
      <button v-if="!recording" type="button" class="btn btn-main" :disabled="state === 'sending'" @click="start()">
        {{ source ? 'Record again' : 'Record an answer' }}
      </button>
      <button v-else type="button" class="btn btn-warn" @click="stop">Stop recording</button>
      <span role="status" class="text-soft">{{
        recording
          ? `Recording … ${Math.floor(elapsed)} of ${body.seconds} s`
          : state === 'sending'
            ? 'Keeping the recording …'
            : `At most ${body.seconds} s`
      }}</span>
    </div>
    <audio v-if="source" :src="source" controls class="w-full max-w-md" aria-label="Your recording" />
    <p v-else-if="readonly" class="text-soft">No recording.</p>
    <p v-if="!keep && local" class="text-label text-soft">This is a preview: the recording is not kept.</p>
    <p v-if="problem || unsent" role="alert" class="note-look">
      {{ problem || unsent }}
      <button v-if="state === 'unsent'" type="button" class="link" @click="send">Send it again</button>
    </p>
  </div>
</template>
