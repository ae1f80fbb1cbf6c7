<script setup lang="ts">
import { noAccommodation } from '~~/core/quiz'
import { addTo } from '~~/core/quiz/edits'
import { blankNeed } from '~~/core/rules/needs'
import { assignedTo } from '~~/core/schedule/assigned'

/** Something for this quiz only: begun for somebody who sits it and is given nothing for it yet. */
const store = useQuiz()
function add() {
  const { rules } = store.quiz!
  const given = new Set(rules.needs.flatMap((need) => need.students))
  const student = assignedTo(store.view!.students, rules).find(({ id }) => !given.has(id))
  if (!student) {
    store.say('Nobody sits it yet who is given nothing for it. Give a class a window first.')
    return
  }
  store.make(
    addTo(['rules', 'needs'], rules.needs.at(-1)?.id ?? null, [
      blankNeed({ id: newRowId(), students: [student.id], groups: [] }, noAccommodation),
    ]),
  )
}
</script>

<template>
  <button class="btn font-sans" @click="add">Give somebody something for this quiz only</button>
</template>
