<script setup lang="ts">
import { count, few } from '~~/core/kit/phrases'

/** What a change does to whom who have the quiz already, before it is done. */
const store = useQuiz()
const emit = defineEmits<{ some: [] }>()
const effects = computed(() => store.proposed?.effects ?? [])
function leave() {
  store.proposed = null
}
function change() {
  const { edit } = store.proposed!
  leave()
  store.make(edit, true)
  announce('Changed, for everybody at once.', store.undo)
}
</script>

<template>
  <ModalDialog wide :open="effects.length > 0" title="What this changes, and for whom" @close="leave">
    <ul>
      <li v-for="effect in effects" :key="effect.words" class="border-b border-rule py-2">
        <p>
          <span class="font-semibold">{{ count(effect.students.length, 'student') }}</span>: {{ effect.words }}
        </p>
        <p class="text-label text-soft">{{ few(effect.students, 8) }}</p>
      </li>
    </ul>
    <p class="mt-3 text-label text-soft">
      Papers under way keep their questions. What gives more time reaches them at once; nothing shortens one that is
      under way, but closing the quiz at once, which is done under Marks.
    </p>
    <div class="mt-5 flex flex-wrap justify-end gap-3">
      <button
        class="btn btn-quiet mr-auto"
        @click="
          () => {
            leave()
            emit('some')
          }
        "
      >
        Only for a class or a student…
      </button>
      <button class="btn" @click="leave">Leave it as it is</button>
      <button class="btn btn-main" @click="change">Change it</button>
    </div>
  </ModalDialog>
</template>
