<script setup lang="ts">
/** The question of `confirmed`, wherever a page asks it. */
const { asked } = useConfirmation()
</script>

<template>
  <ModalDialog :open="asked !== null" :title="asked?.title ?? ''" @close="asked?.answer(false)">
    <p>{{ asked?.words }}</p>
    <div class="mt-5 flex justify-end gap-3">
      <button class="btn" @click="asked?.answer(false)">{{ asked?.no }}</button>
      <button class="btn btn-warn" @click="asked?.answer(true)">{{ asked?.yes }}</button>
    </div>
  </ModalDialog>
</template>
