<script setup lang="ts">
import type { Check } from '~~/core/quiz'

/** What Thistle found, each with a way to mend it. A remedy is an edit like any other: it can be undone. */
defineProps<{ checks: readonly Check[] }>()
const store = useQuiz()
</script>

<template>
  <ul class="space-y-2">
    <li v-for="check in checks" :key="check.code" :class="check.level === 'stop' || check.code === 'leak' ? 'note-stop' : 'note-look'">
      <p class="font-semibold">{{ check.title }}<span v-if="check.level === 'stop'" class="font-normal"> · stops opening</span></p>
      <p>{{ check.sentence }}</p>
      <button v-if="check.remedy" class="mt-1 font-semibold underline underline-offset-2" @click="store.make(check.remedy.edit)">{{ check.remedy.label }}</button>
    </li>
    <li v-if="!checks.length" class="text-soft">Nothing found.</li>
  </ul>
</template>
