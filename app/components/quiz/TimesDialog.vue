<script setup lang="ts">
import { count } from '~~/core/kit/phrases'
import { alikeName } from '~~/core/people'
import { endStarts, moreTime } from '~~/core/quiz/more-time'
import type { Closing } from '~~/core/schedule/closing'
import { quizRoutes } from '~/client/quizzes'

/** More time, or no more starts: for everybody, a class, or one student. What it does to whom is said before it is done. */
const { open } = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const store = useQuiz()
const whom = ref('everybody')
const typed = ref('')
const what = ref<'more' | 'end' | 'close'>('more')
const minutes = ref(10)
const { problem, busy, act } = useAct()
/** What closing at once would do; asked before it is done. */
const closing = shallowRef<Closing | null>(null)
watch(
  () => open,
  () => {
    problem.value = ''
    closing.value = null
  },
)
const classes = computed(() => {
  const meant = new Set(store.quiz?.rules.windows.flatMap((window) => window.classes))
  return (store.view?.classes ?? []).filter(({ id }) => meant.has(id))
})
const student = computed(() => {
  const wanted = alikeName(typed.value)
  if (!wanted) return null
  const found = (store.view?.students ?? []).filter(({ name }) => alikeName(name).includes(wanted))
  return found.find(({ name }) => alikeName(name) === wanted) ?? (found.length === 1 ? found[0]! : null)
})
watch([whom, what, typed], () => {
  if (whom.value === 'student' && what.value === 'end') what.value = 'more'
  if (whom.value === 'everybody' && what.value === 'close') what.value = 'more'
  closing.value = null
})

/** Of a class or a student: what it does is shown first, then it is done. */
const closeFor = () =>
  act(async () => {
    const of = whom.value === 'student' ? { student: student.value!.id } : { inClass: whom.value }
    if (!closing.value) {
      closing.value = await quizRoutes.closing({ id: store.id!, query: of })
      return
    }
    const { ended } = await quizRoutes.closeNow({ id: store.id!, body: of })
    emit('close')
    announce(`Closed. ${count(ended, 'paper')} under way ${ended === 1 ? 'was' : 'were'} handed in.`)
    await store.reload()
  })

function go(): unknown {
  const quiz = store.quiz!
  const isStudent = whom.value === 'student'
  if (isStudent && !student.value) {
    problem.value = 'Nobody of your classes is called so, or several are: type the whole name.'
    return undefined
  }
  if (what.value === 'close') return closeFor()
  const target = whom.value === 'everybody' ? { everybody: true as const } : { inClass: whom.value }
  const members = isStudent
    ? [student.value!]
    : (store.view?.students ?? []).filter(({ classes: of }) => of.includes(whom.value))
  const edit =
    what.value === 'more'
      ? moreTime(quiz, isStudent ? { students: [student.value!.id] } : target, minutes.value, members, newRowId)
      : endStarts(quiz, target, serverTime(), newRowId)
  emit('close')
  if (edit) store.make(edit)
  else announce('Nothing changes by that: nobody can start any more as it is.')
  return undefined
}
</script>

<template>
  <ModalDialog :open="open" title="Time" @close="emit('close')">
    <form class="space-y-4" @submit.prevent="go">
      <LabelledField label="For"
        ><select v-model="whom" class="field">
          <option value="everybody">everybody</option>
          <option v-for="each in classes" :key="each.id" :value="each.id">{{ each.name }}</option>
          <option value="student">one student</option>
        </select></LabelledField
      >
      <LabelledField v-if="whom === 'student'" label="Who"
        ><input v-model="typed" class="field" list="times-students" autocomplete="off" required /><datalist
          id="times-students"
        >
          <option v-for="each in store.view?.students ?? []" :key="each.id" :value="each.name" /></datalist
      ></LabelledField>
      <fieldset class="space-y-2">
        <legend class="sr-only">What is done</legend>
        <label class="flex flex-wrap items-center gap-2"
          ><input v-model="what" type="radio" class="accent-petrol" value="more" />
          <input
            v-model.number="minutes"
            class="field w-20! py-0.5"
            type="number"
            min="1"
            max="10080"
            required
            aria-label="Minutes more"
          />
          minutes more, on the clock and at the end</label
        >
        <label v-if="whom !== 'student'" class="flex items-center gap-2"
          ><input v-model="what" type="radio" class="accent-petrol" value="end" /> nobody starts any more; papers under
          way go on</label
        >
        <label v-if="whom !== 'everybody'" class="flex items-center gap-2"
          ><input v-model="what" type="radio" class="accent-petrol" value="close" /> closed at once; papers under way
          are handed in as they are</label
        >
      </fieldset>
      <ClosingNote v-if="closing" :closing="closing" />
      <ProblemNote :words="problem" />
      <div class="flex justify-end gap-3">
        <button type="button" class="btn" @click="emit('close')">Leave it</button>
        <button class="btn" :class="closing ? 'btn-warn' : 'btn-main'" :disabled="busy">
          {{ closing ? 'Close it for them now' : 'See what it does' }}
        </button>
      </div>
    </form>
  </ModalDialog>
</template>
