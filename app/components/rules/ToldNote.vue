<script setup lang="ts">
import { list } from '~~/core/kit/words'
import { noAccommodation } from '~~/core/quiz'
import { toldToStudents } from '~~/core/rules'
import { scheduleFor } from '~~/core/schedule/schedule'

/** What students will be told, written from the rules; for each class by itself where it differs. */
const store = useQuiz()
const session = useSession()
const told = computed(() => {
  if (!store.quiz || !store.view) return []
  const { rules } = store.quiz
  const groups = new Map<string, string[]>()
  for (const { id, name } of store.view.classes) {
    const schedule = scheduleFor(rules, { id: '', name: '', classes: [id], accommodations: [noAccommodation] })
    if (!schedule.windows.length) continue
    const words = toldToStudents({ quiz: store.quiz, schedule, zone: session.zone }).join(' ')
    groups.set(words, [...(groups.get(words) ?? []), name])
  }
  return [...groups].map(([words, names]) => ({ words, names: list(names) }))
})
</script>

<template>
  <section class="border-l-4 border-rule pl-4 text-soft">
    <h2 class="small-head">Students are told</h2>
    <p v-if="!told.length" class="font-serif">Nothing yet: no class has a window.</p>
    <p v-for="each in told" :key="each.words" class="mb-2 font-serif">
      <span v-if="told.length > 1" class="font-semibold">{{ each.names }}: </span>{{ each.words }}
    </p>
  </section>
</template>
