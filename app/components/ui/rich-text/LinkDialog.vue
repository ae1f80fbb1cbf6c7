<script setup lang="ts">
/** The address of a link; empty takes the link away. */
const { address } = defineProps<{ address: string | null }>()
const emit = defineEmits<{ close: []; keep: [address: string] }>()
const draft = ref('')
const problem = ref('')
watch(
  () => address,
  (current) => {
    draft.value = current ?? ''
    problem.value = ''
  },
)
function keep() {
  const href = draft.value.trim()
  if (href && !/^(?:https?:\/\/|mailto:)\S+$/i.test(href)) problem.value = 'Write an address that begins with https://.'
  else emit('keep', href)
}
</script>

<template>
  <ModalDialog :open="address !== null" title="Link" @close="emit('close')">
    <form @submit.prevent="keep">
      <LabelledField label="Address; empty takes the link away"
        ><input v-model="draft" class="field" inputmode="url" placeholder="https://" maxlength="1000"
      /></LabelledField>
      <ProblemNote class="mt-3" :words="problem" />
      <div class="mt-4 flex justify-end gap-2">
        <button type="button" class="btn" @click="emit('close')">Leave it</button
        ><button class="btn btn-main">Keep</button>
      </div>
    </form>
  </ModalDialog>
</template>
