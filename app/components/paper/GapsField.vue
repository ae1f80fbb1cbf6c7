<script setup lang="ts">
import { plainText } from '~~/core/question/allowed-html'
import type { SealedBody, SealedGap } from '~~/core/question/kinds/sealed'
import { unreadableGap } from '~~/core/question/unreadable'

/** A text with its gaps in place. Every gap is as wide as any other: its width tells nothing. */
const {
  body,
  gaps,
  readonly,
  language = '',
} = defineProps<{
  body: Extract<SealedBody, { asks: 'gaps' }>
  gaps: Record<string, string>
  name: string
  labelledby: string
  readonly: boolean
  language?: string
}>()
const emit = defineEmits<{ fill: [gaps: Record<string, string>] }>()
const text = useTemplateRef<HTMLElement>('text')
const places = shallowRef<Map<string, HTMLElement>>(new Map())

/** The gaps are drawn into their marks in the text. */
async function findPlaces() {
  await nextTick()
  places.value = new Map(
    [...(text.value?.querySelectorAll<HTMLElement>('[data-gap]') ?? [])].map((each) => [each.dataset.gap!, each]),
  )
}
onMounted(findPlaces)
watch(() => body.html, findPlaces)

const hints = computed(() =>
  body.gaps
    .map((gap, index) => ({ index, words: unreadableGap(gap, gaps[gap.id] ?? '') }))
    .filter((each) => each.words !== null),
)
const labelOf = (gap: SealedGap, index: number) =>
  `Gap ${index + 1}${gap.asks === 'number' ? `, a number${gap.unit ? ` in ${gap.unit}` : ''}` : ''}`
function fill(id: string, value: string) {
  if (readonly) return
  const next = { ...gaps, [id]: value }
  if (value === '') Reflect.deleteProperty(next, id)
  emit('fill', next)
}
</script>

<template>
  <div role="group" :aria-labelledby="labelledby">
    <div ref="text"><WrittenText :html="body.html" class="text-lg leading-[2.4]!" :language="language" /></div>
    <template v-for="(gap, index) in body.gaps" :key="gap.id">
      <Teleport v-if="places.get(gap.id)" :to="places.get(gap.id)!">
        <select
          v-if="gap.asks === 'list'"
          class="field inline-block w-auto! max-w-full min-w-36 py-0.5! font-sans"
          :aria-label="labelOf(gap, index)"
          :value="gaps[gap.id] ?? ''"
          :disabled="readonly"
          @change="fill(gap.id, ($event.target as HTMLSelectElement).value)"
        >
          <option value="">choose …</option>
          <option v-for="option in gap.options" :key="option.id" :value="option.id">
            {{ plainText(option.html) }}
          </option>
        </select>
        <span v-else class="whitespace-nowrap">
          <input
            class="field inline-block w-40! max-w-full py-0.5! font-sans"
            type="text"
            autocomplete="off"
            autocapitalize="off"
            spellcheck="false"
            :aria-label="labelOf(gap, index)"
            :value="gaps[gap.id] ?? ''"
            :readonly="readonly"
            inputmode="text"
            :maxlength="gap.asks === 'text' ? gap.longest : 60"
            @input="fill(gap.id, ($event.target as HTMLInputElement).value)"
          /><template v-if="gap.asks === 'number' && gap.unit"> {{ gap.unit }}</template>
        </span>
      </Teleport>
    </template>
    <p v-for="hint in readonly ? [] : hints" :key="hint.index" class="mt-1.5 text-label text-amber" role="status">
      Gap {{ hint.index + 1 }}: {{ hint.words }}
    </p>
  </div>
</template>
