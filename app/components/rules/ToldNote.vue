<script setup lang="ts">
import { list } from '~~/core/kit/phrases'
import { toldToStudents } from '~~/core/rules'
import { studentOfClass } from '~~/core/schedule/assigned'
import { scheduleFor } from '~~/core/schedule/schedule'
import { toldOfSections } from '~~/core/schedule/sections'

/** What students will be told, written from the rules: what all are told, then what is a class's own. */
const store = useQuiz()
const session = useSession()
const byClass = computed(() => {
  const { quiz, view } = store
  if (!quiz || !view) return []
  return view.classes.flatMap(({ id, name }) => {
    const schedule = scheduleFor(quiz.rules, studentOfClass(id))
    return schedule.windows.length
      ? [
          {
            name,
            lines: [
              ...toldToStudents({ quiz, schedule, zone: session.zone }),
              ...toldOfSections(quiz.content, schedule),
            ],
          },
        ]
      : []
  })
})
const common = computed(
  () => byClass.value[0]?.lines.filter((line) => byClass.value.every(({ lines }) => lines.includes(line))) ?? [],
)
const own = computed(() => {
  const groups = new Map<string, string[]>()
  for (const { name, lines } of byClass.value) {
    const words = lines.filter((line) => !common.value.includes(line)).join(' ')
    if (words) groups.set(words, [...(groups.get(words) ?? []), name])
  }
  return [...groups].map(([words, names]) => ({ words, names: list(names) }))
})
</script>

<template>
  <section class="border-l-4 border-rule pl-4 text-soft">
    <h2 class="small-head">Students are told</h2>
    <p v-if="!byClass.length" class="font-serif">Nothing yet: no class has a window.</p>
    <p v-else class="font-serif">{{ common.join(' ') }}</p>
    <p v-for="each in own" :key="each.words" class="mt-2 font-serif">
      <span class="font-semibold">{{ each.names }}:</span> {{ each.words }}
    </p>
  </section>
</template>
