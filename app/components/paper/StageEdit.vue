<script setup lang="ts">
import { stage } from '~/documents/stage'

/** In a rehearsal, from a question straight to its editor. Students never see it: they stand on no stage. */
const { item } = defineProps<{ item: string }>()
</script>

<template>
  <button v-if="stage" type="button" class="link ml-auto text-label" @click="stage.edit(item)">
    open in the editor <span aria-hidden="true">↗</span>
  </button>
</template>
