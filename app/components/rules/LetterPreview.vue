<script setup lang="ts">
import { noticeNames, type NoticeName } from '~~/core/rules'
import { quizRoutes } from '~/client/quizzes'
import type { Reply } from '~/client/route'

/** Any letter as it would read to a student, with their own times. */
const store = useQuiz()
const titles: Record<NoticeName, string> = {
  opening: 'when it is opened',
  reminder: 'the reminder',
  times: 'other times',
  receipt: 'the receipt',
  release: 'more to see',
  results: 'the result',
}
const name = ref<NoticeName>('opening')
const student = ref('')
const open = ref(false)
const letter = shallowRef<Reply<typeof quizRoutes.letter> | null>(null)
const { problem, act } = useAct()
const students = computed(() => store.view?.students ?? [])
const show = () =>
  act(async () => {
    const chosen = student.value || students.value[0]?.id
    if (!chosen) return
    student.value = chosen
    letter.value = await quizRoutes.letter({ id: store.id!, query: { student: chosen, name: name.value } })
  })
function begin() {
  open.value = true
  void show()
}
watch([name, student], () => {
  if (open.value) void show()
})
</script>

<template>
  <p v-if="students.length"><button class="link text-label" @click="begin">Read them as a student does …</button></p>
  <ModalDialog wide :open="open" title="Letters" @close="open = false">
    <div class="flex flex-wrap gap-3">
      <LabelledField label="Letter" class="w-48"
        ><select v-model="name" class="field">
          <option v-for="each in noticeNames" :key="each" :value="each">{{ titles[each] }}</option>
        </select></LabelledField
      >
      <LabelledField label="To" class="w-64"
        ><select v-model="student" class="field">
          <option v-for="each in students" :key="each.id" :value="each.id">{{ each.name }}</option>
        </select></LabelledField
      >
    </div>
    <ProblemNote class="mt-3" :words="problem" />
    <article v-if="letter" class="mt-4 border border-rule bg-ground p-4" aria-live="polite">
      <p class="text-label text-soft">{{ letter.to ?? 'No address is known: nothing is sent.' }}</p>
      <p class="border-b border-rule pb-2 font-semibold">{{ letter.subject }}</p>
      <p class="mt-3 whitespace-pre-line font-serif [overflow-wrap:anywhere]">{{ letter.body }}</p>
    </article>
    <p class="mt-3 text-label text-soft">
      Marks, grades and codes in it are made up here. What a student may not see yet is in no letter.
    </p>
    <div class="mt-4 flex justify-end"><button class="btn" @click="open = false">Close</button></div>
  </ModalDialog>
</template>
