<script setup lang="ts">
import { mediaRoutes } from '~/client/media'
/** A picture, sound, film or PDF before it is put in: in words, and how often it may be played. Sends it to the server. */
export interface KeptMedia {
  src: string
  kind: 'picture' | 'sound' | 'film' | 'document'
  words: string
  /** 0 for as often as one likes. */
  plays: number
}
const { file } = defineProps<{ file: File | null }>()
const emit = defineEmits<{ close: []; keep: [KeptMedia] }>()
const isDocument = computed(() => file?.type === 'application/pdf')
const words = ref('')
const plays = ref(0)
const { problem, busy, act } = useAct()
watch(
  () => file,
  () => {
    words.value = isDocument.value ? file!.name.replace(/\.pdf$/i, '') : ''
    plays.value = 0
    problem.value = ''
  },
)
async function keep() {
  await act(async () => {
    const kept = await mediaRoutes.add({ body: file! })
    emit('keep', { ...kept, words: words.value.trim(), plays: plays.value })
  })
}
</script>

<template>
  <ModalDialog :open="file !== null" :title="isDocument ? 'PDF' : 'Picture, sound or film'" @close="emit('close')">
    <form v-if="file" @submit.prevent="keep">
      <p class="text-soft">{{ file.name }}</p>
      <LabelledField
        :label="isDocument ? 'What it is called' : 'What it shows, for those who cannot see it'"
        class="mt-3"
        ><input v-model="words" class="field" maxlength="300"
      /></LabelledField>
      <LabelledField v-if="!isDocument && !file.type.startsWith('image')" label="May be played" class="mt-3"
        ><select v-model.number="plays" class="field">
          <option :value="0">as often as one likes</option>
          <option v-for="n in 5" :key="n" :value="n">{{ n === 1 ? 'once' : `${n} times` }}</option>
        </select></LabelledField
      >
      <ProblemNote class="mt-3" :words="problem" />
      <div class="mt-4 flex justify-end gap-2">
        <button type="button" class="btn" @click="emit('close')">Leave it</button
        ><button class="btn btn-main" :disabled="busy || !words.trim()">{{ busy ? 'Sending …' : 'Put it in' }}</button>
      </div>
    </form>
  </ModalDialog>
</template>
