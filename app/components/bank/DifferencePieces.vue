<script setup lang="ts">
import type { Difference } from '~~/core/question/difference'

/** What was and what is, marked by more than colour: struck out, and underlined by its tint. */
defineProps<{ pieces: Difference['pieces'] }>()
</script>

<template>
  <template v-for="(piece, index) in pieces" :key="index"
    ><del v-if="!piece.is" class="bg-red-tint text-red">{{ piece.text }}</del
    ><ins v-else-if="!piece.was" class="bg-green-tint text-green no-underline">{{ piece.text }}</ins
    ><span v-else>{{ piece.text }}</span></template
  >
</template>
