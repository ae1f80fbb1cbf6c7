<script setup lang="ts">
import type { Objective } from '~~/server/domain/bank/describing/objectives'
import type { FolderEntry } from '~/composables/question-search'

/** What can be done with several questions at once. Everything here can be taken back. */
const { chosen, folders, objectives } = defineProps<{
  chosen: string[]
  folders: FolderEntry[]
  objectives: Objective[]
}>()
const emit = defineEmits<{ done: []; none: [] }>()
const tag = ref('')
const { problem, change: changeMany } = useChangeMany(() => {
  emit('done')
})
const change = (by: Parameters<typeof changeMany>[1], words: string) => changeMany(chosen, by, words)
const places = computed(() => [
  { value: '', label: 'no folder' },
  ...folders.map(({ id, name }) => ({ value: id, label: name })),
])
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
      <PickMenu up words="Move to" :options="places" @pick="change({ do: 'move', folder: $event || null }, 'Moved')" />
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
      <PickMenu
        up
        words="Add objective"
        :options="objectives.map(({ id, code, title }) => ({ value: id, label: `${code} ${title}` }))"
        @pick="change({ do: 'objective', add: [$event], remove: [] }, 'Objective added')"
      />
      <PickMenu
        up
        words="Points"
        :options="[0.5, 1, 1.5, 2, 3, 4, 5, 10].map((value) => ({ value, label: String(value) }))"
        @pick="change({ do: 'points', points: $event }, 'Points set')"
      />
      <PickMenu
        up
        words="Difficulty"
        :options="[1, 2, 3, 4, 5].map((value) => ({ value, label: String(value) }))"
        @pick="change({ do: 'difficulty', difficulty: $event }, 'Difficulty set')"
      />
      <button type="button" class="btn py-1" @click="change({ do: 'state', retired: true }, 'Retired')">Retire</button>
      <button type="button" class="btn py-1" @click="change({ do: 'state', retired: false }, 'In use again')">
        Use again
      </button>
      <button
        type="button"
        class="btn py-1"
        title="Puts the options of each question in another order, once and for good"
        @click="change({ do: 'shuffleAnswers', seed: anySeed() }, 'Answers shuffled')"
      >
        Shuffle answers for good
      </button>
      <DownloadMenu what="questions" :questions="chosen" />
      <button type="button" class="btn btn-quiet" @click="emit('none')">Choose none</button>
    </div>
    <ProblemNote class="mt-2" :words="problem" />
  </section>
</template>
