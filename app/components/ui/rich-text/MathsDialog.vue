<script setup lang="ts">
/** One piece of maths in TeX; empty takes it away. */
const { tex } = defineProps<{ tex: string | null }>()
const emit = defineEmits<{ close: []; keep: [tex: string] }>()
const draft = ref('')
watch(
  () => tex,
  (current) => {
    draft.value = current ?? ''
  },
)
</script>

<template>
  <ModalDialog :open="tex !== null" title="Maths" @close="emit('close')">
    <form @submit.prevent="emit('keep', draft.trim())">
      <LabelledField label="In TeX, for instance \frac{3}{12}R"
        ><input v-model="draft" class="field font-mono" spellcheck="false" maxlength="2000"
      /></LabelledField>
      <div class="mt-4 flex justify-end gap-2">
        <button type="button" class="btn" @click="emit('close')">Leave it</button
        ><button class="btn btn-main">Put it in</button>
      </div>
    </form>
  </ModalDialog>
</template>
