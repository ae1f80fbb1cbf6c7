<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'

/** Before a quiz is given to its classes, or a new edition to later starts: what has to be mended first. */
const { open } = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const store = useQuiz()
const problem = ref<{ sentence: string; checks: { title: string; sentence: string }[] } | null>(null)
const isDraft = computed(() => store.view?.state === 'draft')
const stops = computed(() => store.checks.filter((check) => check.level === 'stop'))
const looks = computed(() => store.checks.filter((check) => check.level === 'look'))
watch(
  () => open,
  () => {
    problem.value = null
  },
)

async function give() {
  problem.value = null
  try {
    const { edition } = await quizRoutes.open({ id: store.id! })
    emit('close')
    announce(
      edition === 1 ? 'The quiz is open to its classes by the rules.' : `Edition ${edition} goes to later starts.`,
    )
    await store.reload()
  } catch (error) {
    problem.value = {
      sentence: sentenceOf(error),
      checks:
        error instanceof ApiProblem
          ? ((error.more.checks as { title: string; sentence: string }[] | undefined) ?? [])
          : [],
    }
  }
}
</script>

<template>
  <ModalDialog
    :open="open"
    :title="isDraft ? 'Open this quiz' : 'Give the changes to later starts'"
    @close="emit('close')"
  >
    <p v-if="stops.length" class="font-semibold">
      {{ stops.length === 1 ? 'One thing has' : `${stops.length} things have` }} to be mended first.
    </p>
    <p v-else>
      The questions, their points and their order are frozen as they stand now. The rules stay living: a change to them
      reaches everybody at once.
    </p>
    <ChecksList class="mt-4" :checks="[...stops, ...looks]" @gone="emit('close')" />
    <div v-if="problem" role="alert" class="note-stop mt-4">
      <p>{{ problem.sentence }}</p>
      <p v-for="check in problem.checks" :key="check.title">{{ check.title }}: {{ check.sentence }}</p>
    </div>
    <div class="mt-5 flex justify-end gap-3">
      <button class="btn" @click="emit('close')">Not yet</button>
      <button class="btn btn-main" :disabled="stops.length > 0" @click="give">
        {{ isDraft ? 'Open to classes' : 'Give to later starts' }}
      </button>
    </div>
  </ModalDialog>
</template>
