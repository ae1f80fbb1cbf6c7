<script setup lang="ts">
import { whoSits } from '~~/core/schedule/who-sits'

/** Who can see and sit the quiz, in one sentence: of the classes that it is for, and of one's own. */
const store = useQuiz()
const session = useSession()
const now = useNow(30_000)
const sentence = computed(() => {
  const { quiz, view } = store
  if (!quiz || !view?.state) return ''
  const around = new Set([
    ...quiz.rules.windows.flatMap((window) => window.classes),
    ...view.students.flatMap((student) => student.classes),
  ])
  const held = new Set(view.students.flatMap((student) => student.held ?? []))
  const classes = view.classes.filter(({ id }) => around.has(id)).map((each) => ({ ...each, held: held.has(each.id) }))
  return whoSits(quiz.rules, view.state, classes, now.value, session.zone)
})
</script>

<template>
  <p v-if="sentence" class="my-2 border-l-4 border-rule pl-3 leading-6 text-soft">{{ sentence }}</p>
</template>
