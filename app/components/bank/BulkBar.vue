<script setup lang="ts">
import type { Objective } from '~~/server/domain/bank/objectives'
import type { FolderEntry } from '~/composables/question-search'

/** What can be done with several questions at once. Everything here can be taken back. */
const { chosen, folders, objectives } = defineProps<{
  chosen: string[]
  folders: FolderEntry[]
  objectives: Objective[]
}>()
const emit = defineEmits<{ done: []; none: [] }>()
const tag = ref('')
const problem = ref('')

async function change(values: object, words: string) {
  problem.value = ''
  try {
    const {
      change: id,
      changed,
      refused,
    } = await api<{ change: string; changed: number; refused: number }>('questions/changes', {
      method: 'POST',
      body: { questions: chosen, change: values },
    })
    announce(
      `${words}: ${changed} ${changed === 1 ? 'question' : 'questions'}.${refused ? ` ${refused} belong to colleagues and stay as they are.` : ''}`,
      changed
        ? () => {
            void undo(id)
          }
        : null,
    )
    emit('done')
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
async function undo(id: string) {
  try {
    const { undone, kept } = await api<{ undone: number; kept: number }>(`questions/changes/${id}`, {
      method: 'DELETE',
    })
    announce(`Taken back: ${undone}.${kept ? ` ${kept} had been changed since and stay.` : ''}`)
    emit('done')
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
async function download(as: string) {
  problem.value = ''
  try {
    await downloadFile('questions/file', { questions: chosen, as })
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
const value = (event: Event) => {
  const select = event.target as HTMLSelectElement
  const chosenValue = select.value
  select.value = ''
  return chosenValue
}
function addTag() {
  void change({ do: 'tag', add: [tag.value.trim()], remove: [] }, `Tagged “${tag.value.trim()}”`)
  tag.value = ''
}
</script>

<template>
  <section
    aria-label="Change what is chosen"
    class="sticky bottom-0 z-10 border-t-2 border-bloom bg-sheet px-4 py-3 shadow-lg"
  >
    <div class="flex flex-wrap items-center gap-2">
      <strong>{{ chosen.length }} chosen</strong>
      <select
        class="field w-auto! py-1"
        aria-label="Move to a folder"
        @change="change({ do: 'move', folder: value($event).slice(1) || null }, 'Moved')"
      >
        <option value="">Move to …</option>
        <option value="-">no folder</option>
        <option v-for="folder in folders" :key="folder.id" :value="`-${folder.id}`">{{ folder.name }}</option>
      </select>
      <form class="flex gap-1" @submit.prevent="addTag">
        <input
          v-model="tag"
          class="field w-32! py-1"
          aria-label="Tag"
          placeholder="tag"
          maxlength="40"
          required
        /><button class="btn py-1">Add tag</button>
      </form>
      <select
        class="field w-auto! max-w-56 py-1"
        aria-label="Add an objective"
        @change="change({ do: 'objective', add: [value($event)], remove: [] }, 'Objective added')"
      >
        <option value="">Add objective …</option>
        <option v-for="objective in objectives" :key="objective.id" :value="objective.id">
          {{ objective.code }} {{ objective.title }}
        </option>
      </select>
      <select
        class="field w-auto! py-1"
        aria-label="Set points"
        @change="change({ do: 'points', points: Number(value($event)) }, 'Points set')"
      >
        <option value="">Points …</option>
        <option v-for="n in [0.5, 1, 1.5, 2, 3, 4, 5, 10]" :key="n" :value="n">{{ n }}</option>
      </select>
      <select
        class="field w-auto! py-1"
        aria-label="Set difficulty"
        @change="change({ do: 'difficulty', difficulty: Number(value($event)) }, 'Difficulty set')"
      >
        <option value="">Difficulty …</option>
        <option v-for="n in 5" :key="n" :value="n">{{ n }}</option>
      </select>
      <button type="button" class="btn py-1" @click="change({ do: 'state', retired: true }, 'Retired')">Retire</button>
      <button type="button" class="btn py-1" @click="change({ do: 'state', retired: false }, 'In use again')">
        Use again
      </button>
      <select class="field w-auto! py-1" aria-label="Download as a file" @change="download(value($event))">
        <option value="">Download as …</option>
        <option value="qti-3.0">QTI 3.0 package</option>
        <option value="qti-2.2">QTI 2.2 package</option>
        <option value="qti-2.1">QTI 2.1 package</option>
        <option value="json">Thistle’s JSON</option>
        <option value="csv">CSV</option>
      </select>
      <button type="button" class="btn btn-quiet" @click="emit('none')">Choose none</button>
    </div>
    <p v-if="problem" role="alert" class="note-stop mt-2">{{ problem }}</p>
  </section>
</template>
