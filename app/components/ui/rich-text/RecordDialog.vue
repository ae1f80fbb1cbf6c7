<script setup lang="ts">
import { count } from '~~/core/kit/phrases'
import type { Recorded } from '~/composables/recorder'

/** Records sound or film to be put into a text; it can be heard and seen before it is taken. */
const { open } = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: []; take: [recorded: File] }>()
/** Minutes: what the server takes at the rates that are recorded at. */
const most: Record<Recorded, number> = { sound: 5, film: 3 }
const what = ref<Recorded>('sound')
const kept = shallowRef<{ recorded: Blob; url: string } | null>(null)
const { recording, elapsed, problem, seen, start, stop } = useRecorder(
  () => most[what.value] * 60,
  (recorded) => {
    drop()
    kept.value = { recorded, url: URL.createObjectURL(recorded) }
  },
)
const camera = useTemplateRef<HTMLVideoElement>('camera')
watch([seen, camera], () => {
  if (camera.value) camera.value.srcObject = seen.value
})
function drop() {
  if (kept.value) URL.revokeObjectURL(kept.value.url)
  kept.value = null
}
function begin(kind: Recorded) {
  drop()
  what.value = kind
  void start(kind)
}
function close() {
  stop()
  drop()
  emit('close')
}
function take() {
  const { recorded } = kept.value!
  emit('take', new File([recorded], 'Recording', { type: recorded.type }))
  drop()
}
watch(
  () => open,
  (is) => {
    if (!is) drop()
  },
)
onBeforeUnmount(drop)
</script>

<template>
  <ModalDialog :open="open" title="Record sound or film" @close="close">
    <div class="flex flex-wrap items-center gap-3">
      <template v-if="!recording">
        <button type="button" class="btn" :class="!kept && 'btn-main'" @click="begin('sound')">
          Record {{ kept ? 'again: ' : '' }}sound
        </button>
        <button type="button" class="btn" @click="begin('film')">Record {{ kept ? 'again: ' : '' }}film</button>
      </template>
      <button v-else type="button" class="btn btn-warn" @click="stop">Stop recording</button>
      <span role="status" class="text-soft">{{
        recording
          ? `Recording … ${Math.floor(elapsed)} s`
          : `Sound of at most ${count(most.sound, 'minute')}, film of at most ${most.film}`
      }}</span>
    </div>
    <video
      v-show="recording && seen"
      ref="camera"
      autoplay
      muted
      playsinline
      class="mt-3 w-full"
      aria-label="What the camera sees"
    />
    <template v-if="kept && !recording">
      <audio v-if="what === 'sound'" :src="kept.url" controls class="mt-3 w-full" aria-label="What was recorded" />
      <video v-else :src="kept.url" controls playsinline class="mt-3 w-full" aria-label="What was recorded" />
    </template>
    <p v-if="problem" role="alert" class="note-look mt-3">{{ problem }}</p>
    <div class="mt-4 flex justify-end gap-2">
      <button type="button" class="btn" @click="close">Leave it</button
      ><button type="button" class="btn btn-main" :disabled="!kept || recording" @click="take">Take it</button>
    </div>
  </ModalDialog>
</template>
