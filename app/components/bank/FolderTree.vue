<script setup lang="ts">
import { folderRoutes } from '~/client/folders'
import type { FolderEntry } from '~/composables/question-search'

/** Folders as a tree: choose one to look into; add, rename, move or take one away. */
const { folders, chosen } = defineProps<{ folders: FolderEntry[]; chosen: string | null }>()
const emit = defineEmits<{ choose: [id: string | null]; changed: [] }>()
const editing = ref<{ id: string | null; name: string; parent: string | null } | null>(null)
const { problem, act } = useAct()

const lines = computed(() => {
  const under = (parent: string | null, depth: number): { folder: FolderEntry; depth: number; all: number }[] =>
    folders
      .filter((each) => each.parent === parent)
      .flatMap((folder) => {
        const below = under(folder.id, depth + 1)
        return [
          {
            folder,
            depth,
            all:
              folder.questions +
              below.filter((each) => each.depth === depth + 1).reduce((total, each) => total + each.all, 0),
          },
          ...below,
        ]
      })
  return under(null, 0)
})
async function keep() {
  if (!editing.value) return
  problem.value = ''
  const { id, name, parent } = editing.value
  await act(async () => {
    if (id) await folderRoutes.change({ id, body: { name, parent } })
    else await folderRoutes.add({ body: { name, parent } })
    editing.value = null
    emit('changed')
  })
}
function remove(folder: FolderEntry) {
  return act(async () => {
    await folderRoutes.remove({ id: folder.id })
    announce(`“${folder.name}” is taken away; what was in it lies one folder up.`)
    editing.value = null
    if (chosen === folder.id) emit('choose', null)
    emit('changed')
  })
}
</script>

<template>
  <nav aria-label="Folders">
    <ul>
      <li>
        <button
          type="button"
          class="flex w-full justify-between rounded px-2 py-1 text-left hover:bg-petrol-tint"
          :class="chosen === null && 'bg-bloom-tint font-semibold'"
          :aria-current="chosen === null || undefined"
          @click="emit('choose', null)"
        >
          All questions
        </button>
      </li>
      <li v-for="{ folder, depth, all } in lines" :key="folder.id" class="group flex items-center">
        <button
          type="button"
          class="flex min-w-0 grow justify-between gap-2 rounded px-2 py-1 text-left hover:bg-petrol-tint"
          :class="chosen === folder.id && 'bg-bloom-tint font-semibold'"
          :style="{ paddingLeft: `${0.5 + depth}rem` }"
          :aria-current="chosen === folder.id || undefined"
          @click="emit('choose', folder.id)"
        >
          <span class="truncate">{{ folder.name }}</span><span class="text-soft">{{ all }}</span>
        </button>
        <button
          type="button"
          class="btn btn-quiet px-1.5 py-0.5 text-note opacity-60 group-hover:opacity-100 focus:opacity-100"
          :aria-label="`Change folder ${folder.name}`"
          @click="editing = { id: folder.id, name: folder.name, parent: folder.parent }"
        >
          …
        </button>
      </li>
    </ul>
    <button type="button" class="btn btn-quiet mt-1" @click="editing = { id: null, name: '', parent: chosen }">
      + folder
    </button>
    <ModalDialog :open="editing !== null" :title="editing?.id ? 'Folder' : 'New folder'" @close="editing = null">
      <form v-if="editing" class="space-y-3" @submit.prevent="keep">
        <LabelledField label="Name"
          ><input v-model="editing.name" class="field" maxlength="120" required
        /></LabelledField>
        <LabelledField label="Lies in"
          ><select v-model="editing.parent" class="field">
            <option :value="null">no other folder</option>
            <option
              v-for="{ folder } in lines.filter((line) => line.folder.id !== editing?.id)"
              :key="folder.id"
              :value="folder.id"
            >
              {{ folder.name }}
            </option>
          </select></LabelledField
        >
        <ProblemNote :words="problem" />
        <div class="flex flex-wrap justify-end gap-2">
          <button
            v-if="editing.id"
            type="button"
            class="btn btn-warn mr-auto"
            @click="remove(folders.find((each) => each.id === editing?.id)!)"
          >
            Take the folder away
          </button>
          <button type="button" class="btn" @click="editing = null">Leave it</button
          ><button class="btn btn-main">Keep</button>
        </div>
      </form>
    </ModalDialog>
  </nav>
</template>
