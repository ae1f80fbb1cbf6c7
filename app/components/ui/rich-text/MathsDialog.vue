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
const id = useId()
</script>

<template>
  <ModalDialog :open="tex !== null" title="Maths" @close="emit('close')">
    <form @submit.prevent="emit('keep', draft.trim())">
      <label class="label" :for="id">In TeX, for instance \frac{3}{12}R</label>
      <input :id="id" v-model="draft" class="field font-mono" spellcheck="false" maxlength="2000" />
      <div class="mt-4 flex justify-end gap-2">
        <button type="button" class="btn" @click="emit('close')">Leave it</button
        ><button class="btn btn-main">Put it in</button>
      </div>
    </form>
  </ModalDialog>
</template>
