<script setup lang="ts">
import { stimulusRoutes } from '~/client/stimuli'
import { count } from '~~/core/kit/phrases'
import type { StimulusDetail, StimulusLine } from '~~/server/domain/bank/material/stimuli'

/** Chooses one of the school's stimuli. */
const { open } = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: []; choose: [StimulusDetail] }>()
const words = ref('')
const lines = shallowRef<StimulusLine[] | null>(null)
const { problem, act } = useAct()
const shown = computed(() =>
  (lines.value ?? []).filter((line) =>
    `${line.name} ${line.beginning}`.toLowerCase().includes(words.value.trim().toLowerCase()),
  ),
)
watch(
  () => open,
  async (is) => {
    if (!is) return
    words.value = ''
    await act(async () => {
      lines.value = await stimulusRoutes.list()
    })
  },
)
function choose(id: string) {
  return act(async () => {
    emit('choose', await stimulusRoutes.get({ id }))
  })
}
</script>

<template>
  <ModalDialog :open="open" title="What questions share" @close="emit('close')">
    <ProblemNote :words="problem" />
    <input
      v-model="words"
      type="search"
      class="field"
      aria-label="Find a stimulus"
      placeholder="Words in its name or text"
    />
    <ul class="mt-3 max-h-[50vh] overflow-y-auto border-t border-rule">
      <li v-for="line in shown" :key="line.id" class="border-b border-rule">
        <button type="button" class="w-full px-2 py-2 text-left hover:bg-petrol-tint" @click="choose(line.id)">
          <span class="font-semibold">{{ line.name }}</span>
          <span class="text-small text-soft">· {{ count(line.questions, 'question') }}</span
          ><span class="line-clamp-2 font-serif text-label">{{ line.beginning || 'A picture' }}</span>
        </button>
      </li>
    </ul>
    <p v-if="lines && !shown.length" class="py-3 text-soft">
      {{ lines.length ? 'Nothing found.' : 'There is no stimulus yet.' }}
    </p>
    <div class="mt-4 flex items-center justify-between gap-2">
      <NuxtLink class="link" to="/bank/stimuli/new">Write a new one</NuxtLink
      ><button type="button" class="btn" @click="emit('close')">Leave it</button>
    </div>
  </ModalDialog>
</template>
