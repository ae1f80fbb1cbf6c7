<script setup lang="ts">
import type { SealedBody } from '~~/core/question/kinds/sealed'
import { keepRecordingKey, type Response } from './response'

/** An answer in sound. What could not be sent stays here and can be sent again; a preview keeps nothing. */
const { body, answer, readonly } = defineProps<{ body: Extract<SealedBody, { asks: 'recording' }>, answer: Response | null, labelledby: string, readonly: boolean }>()
const emit = defineEmits<{ record: [Response | null] }>()
const keep = inject(keepRecordingKey, null)
const state = ref<'still' | 'recording' | 'sending' | 'unsent'>('still')
const problem = ref('')
const elapsed = ref(0)
const local = ref<string | null>(null)
let recorder: MediaRecorder | undefined
let timer: ReturnType<typeof setInterval> | undefined
let kept: { sound: Blob, seconds: number } | null = null

async function start() {
  problem.value = ''
  try {
    const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
    const parts: Blob[] = []
    recorder = new MediaRecorder(stream, { audioBitsPerSecond: 32_000 })
    recorder.ondataavailable = (event) => parts.push(event.data)
    recorder.onstop = () => {
      stream.getTracks().forEach((track) => track.stop())
      clearInterval(timer)
      kept = { sound: new Blob(parts, { type: recorder!.mimeType }), seconds: Math.max(0.1, elapsed.value) }
      void send()
    }
    elapsed.value = 0
    const began = performance.now()
    timer = setInterval(() => {
      elapsed.value = (performance.now() - began) / 1000
      if (elapsed.value >= body.seconds) stop()
    }, 100)
    recorder.start(500)
    state.value = 'recording'
  } catch { problem.value = 'No microphone can be used. Allow this page to use it in your browser, or tell your teacher.' }
}
function stop() { if (recorder?.state === 'recording') recorder.stop() }

async function send() {
  if (!kept) return
  if (local.value) URL.revokeObjectURL(local.value)
  local.value = URL.createObjectURL(kept.sound)
  if (!keep) { state.value = 'still'; return }
  state.value = 'sending'
  try {
    const sound = await keep(kept.sound)
    emit('record', { sound, seconds: Math.round(kept.seconds * 10) / 10 })
    state.value = 'still'
    kept = null
  } catch (error) { state.value = 'unsent'; problem.value = sentenceOf(error) }
}
onBeforeUnmount(() => { stop(); clearInterval(timer); if (local.value) URL.revokeObjectURL(local.value) })
const source = computed(() => local.value ?? answer?.sound ?? null)
</script>

<template>
  <div role="group" :aria-labelledby="labelledby" class="space-y-2">
    <div v-if="!readonly" class="flex flex-wrap items-center gap-3">
      <button v-if="state !== 'recording'" type="button" class="btn btn-main" :disabled="state === 'sending'" @click="start">{{ source ? 'Record again' : 'Record an answer' }}</button>
      <button v-else type="button" class="btn btn-warn" @click="stop">Stop recording</button>
      <span role="status" class="text-soft">{{ state === 'recording' ? `Recording … ${Math.floor(elapsed)} of ${body.seconds} s` : state === 'sending' ? 'Keeping the recording …' : `At most ${body.seconds} s` }}</span>
    </div>
    <audio v-if="source" :src="source" controls class="w-full max-w-md" aria-label="Your recording" />
    <p v-else-if="readonly" class="text-soft">No recording.</p>
    <p v-if="!keep && local" class="text-[0.9375rem] text-soft">This is a preview: the recording is not kept.</p>
    <p v-if="problem" role="alert" class="note-look">{{ problem }} <button v-if="state === 'unsent'" type="button" class="link" @click="send">Send it again</button></p>
  </div>
</template>
