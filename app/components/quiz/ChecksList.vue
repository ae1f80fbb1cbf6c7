<script setup lang="ts">
import type { Check } from '~~/core/quiz'

/** What Thistle found, each with a way to mend it. A remedy is an edit like any other: it can be undone. */
defineProps<{ checks: readonly Check[] }>()
const emit = defineEmits<{ gone: [] }>()
const store = useQuiz()
const pages = { finder: 'compose', windows: 'rules' } as const

/** To the place where a person chooses; the page puts the focus there. */
async function goTo(place: keyof typeof pages) {
  emit('gone')
  await navigateTo(`/quizzes/${store.id!}/${pages[place]}`)
  // A dialog that closes gives the focus back where it came from; only then may it be taken.
  for (let tries = 0; tries < 60; tries++) {
    const target = document.querySelector('[role=dialog]') ? null : document.getElementById(place)
    if (target && tries > 2) {
      target.focus()
      target.scrollIntoView({ block: 'center' })
      return
    }
    await new Promise(requestAnimationFrame)
  }
}
</script>

<template>
  <ul class="space-y-2">
    <li
      v-for="check in checks"
      :key="check.code"
      :class="check.level === 'stop' || check.code === 'leak' ? 'note-stop' : 'note-look'"
    >
      <p class="font-semibold">
        {{ check.title }}<span v-if="check.level === 'stop'" class="font-normal"> · stops opening</span>
      </p>
      <p>{{ check.sentence }}</p>
      <button
        v-if="check.remedy && 'goTo' in check.remedy"
        class="mt-1 font-semibold underline underline-offset-2"
        @click="goTo(check.remedy.goTo)"
      >
        {{ check.remedy.label }}
      </button>
      <button
        v-else-if="check.remedy"
        class="mt-1 font-semibold underline underline-offset-2"
        @click="store.make(check.remedy.edit)"
      >
        {{ check.remedy.label }}
      </button>
    </li>
    <li v-if="!checks.length" class="text-soft">Nothing found.</li>
  </ul>
</template>
