<script setup lang="ts">
/** Records a sound to be put into a text; it can be heard before it is taken. */
const { open } = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: []; take: [sound: File] }>()
const most = 300
const heard = shallowRef<{ sound: Blob; url: string } | null>(null)
const { recording, elapsed, problem, start, stop } = useRecorder(
  () => most,
  (sound) => {
    drop()
    heard.value = { sound, url: URL.createObjectURL(sound) }
  },
)
function drop() {
  if (heard.value) URL.revokeObjectURL(heard.value.url)
  heard.value = null
}
function close() {
  stop()
  drop()
  emit('close')
}
function take() {
  const { sound } = heard.value!
  emit('take', new File([sound], 'Recording', { type: sound.type }))
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
  <ModalDialog :open="open" title="Record a sound" @close="close">
    <div class="flex flex-wrap items-center gap-3">
      <button v-if="!recording" type="button" class="btn" :class="!heard && 'btn-main'" @click="start">
        {{ heard ? 'Record again' : 'Begin' }}
      </button>
      <button v-else type="button" class="btn btn-warn" @click="stop">Stop recording</button>
      <span role="status" class="text-soft">{{
        recording ? `Recording … ${Math.floor(elapsed)} s` : `At most ${most / 60} minutes`
      }}</span>
    </div>
    <audio v-if="heard && !recording" :src="heard.url" controls class="mt-3 w-full" aria-label="What was recorded" />
    <p v-if="problem" role="alert" class="note-look mt-3">{{ problem }}</p>
    <div class="mt-4 flex justify-end gap-2">
      <button type="button" class="btn" @click="close">Leave it</button
      ><button type="button" class="btn btn-main" :disabled="!heard || recording" @click="take">Take it</button>
    </div>
  </ModalDialog>
</template>
