<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { folderRoutes } from '~/client/folders'
import { quizRoutes } from '~/client/quizzes'
import type { Filing } from '~~/server/domain/quizzes/filing'

/** How a quiz is kept: description, term, tags, folder, and whether the school may look at it. */
const { quiz } = defineProps<{ quiz: (Filing & { id: string; title: string; mine: boolean }) | null }>()
const emit = defineEmits<{ close: []; kept: [] }>()
const { problem, busy, act } = useAct()
const description = ref('')
const term = ref('')
const tags = ref('')
const folder = ref('')
const school = ref(false)
watch(
  () => quiz,
  (now) => {
    if (!now) return
    description.value = now.description
    term.value = now.term
    tags.value = now.tags.join(', ')
    folder.value = now.folder ?? ''
    school.value = now.sharing === 'school'
    problem.value = ''
  },
  { immediate: true },
)
const { state: known } = useAsyncState(
  async () => ({ folders: await folderRoutes.list(), words: await quizRoutes.words() }),
  { folders: [], words: { terms: [], tags: [] } },
)
async function keep() {
  const kept = await act(
    () =>
      quizRoutes.file({
        id: quiz!.id,
        body: {
          description: description.value,
          term: term.value,
          tags: tags.value
            .split(',')
            .map((tag) => tag.trim())
            .filter(Boolean),
          folder: folder.value || null,
          ...(quiz!.mine ? { sharing: school.value ? 'school' : 'named' } : {}),
        },
      }),
    'Kept.',
  )
  if (kept) emit('kept')
}
</script>

<template>
  <ModalDialog :open="quiz !== null" title="How it is kept" @close="emit('close')">
    <form class="space-y-4" @submit.prevent="keep">
      <p class="font-serif text-lg">{{ quiz?.title }}</p>
      <LabelledField label="What it is about">
        <textarea v-model="description" class="field" rows="3" maxlength="2000" />
      </LabelledField>
      <div class="grid gap-4 sm:grid-cols-2">
        <LabelledField label="Term"
          ><input v-model="term" class="field" maxlength="60" list="quiz-terms" placeholder="Autumn 2026"
        /></LabelledField>
        <LabelledField label="Folder"
          ><select v-model="folder" class="field">
            <option value="">none</option>
            <option v-for="each in known.folders" :key="each.id" :value="each.id">{{ each.name }}</option>
          </select></LabelledField
        >
      </div>
      <datalist id="quiz-terms"><option v-for="each in known.words.terms" :key="each" :value="each" /></datalist>
      <LabelledField label="Tags, with commas"><input v-model="tags" class="field" maxlength="800" /></LabelledField>
      <TickBox v-if="quiz?.mine" v-model="school"
        >every teacher of the school may look at it and copy it (not its classes, times or marks)</TickBox
      >
      <ProblemNote :words="problem" />
      <div class="flex justify-end gap-2">
        <button type="button" class="btn" @click="emit('close')">Leave it</button>
        <button class="btn btn-main" :disabled="busy">Keep it so</button>
      </div>
    </form>
  </ModalDialog>
</template>
