<script setup lang="ts">
import { Highlighter, NotebookPen } from '@lucide/vue'
import { rangeOf, selectedIn, toggled } from './text-marks'

/** A student's own highlights and note on a question: kept with the paper, theirs alone, and never marked. */
const { item, textId, tools, readonly } = defineProps<{
  item: string
  /** Of the element whose text is highlighted. */
  textId: string
  tools: { notes: boolean; highlight: boolean }
  readonly: boolean
}>()
const { own, change } = useOwnNote(item)
const isOpen = ref(false)
const hint = ref('')
const id = useId()
const element = () => document.getElementById(textId)

/** All highlights of the page share one name in the browser's registry: each question keeps its own ranges in it. */
const highlights = (): Highlight | null => {
  if (!('highlights' in CSS)) return null
  if (!CSS.highlights.has('own')) CSS.highlights.set('own', new Highlight())
  return CSS.highlights.get('own')!
}
let drawn: Range[] = []
function clear() {
  for (const range of drawn) highlights()?.delete(range)
  drawn = []
}
async function draw() {
  await nextTick()
  clear()
  const root = element()
  if (!root) return
  drawn = own.value.marks.flatMap((mark) => rangeOf(root, mark) ?? [])
  for (const range of drawn) highlights()?.add(range)
}
watch(() => own.value.marks, draw, { immediate: true })
onMounted(draw)
onBeforeUnmount(clear)

/** Opened, it is written in at once: letters would choose options otherwise. */
async function toggleNote() {
  isOpen.value = !isOpen.value
  await nextTick()
  document.getElementById(id)?.focus()
}

function highlight() {
  const root = element()
  const selected = root && selectedIn(root)
  hint.value = selected ? '' : 'Select words of the question first, then highlight them; selected again they lose it.'
  if (!selected) return
  change({ marks: toggled(own.value.marks, selected) })
  document.getSelection()?.removeAllRanges()
}
</script>

<template>
  <div>
    <div class="flex flex-wrap items-center gap-x-3">
      <button
        v-if="tools.highlight"
        type="button"
        class="btn btn-quiet text-label"
        :disabled="readonly"
        @mousedown.prevent
        @click="highlight"
      >
        <Highlighter class="size-4" aria-hidden="true" /> Highlight
      </button>
      <button
        v-if="tools.highlight && own.marks.length"
        type="button"
        class="btn btn-quiet text-label"
        :disabled="readonly"
        @click="change({ marks: [] })"
      >
        Take highlights off
      </button>
      <button
        v-if="tools.notes"
        type="button"
        class="btn btn-quiet text-label"
        :aria-expanded="isOpen"
        @click="toggleNote"
      >
        <NotebookPen class="size-4" aria-hidden="true" /> {{ own.note ? 'My note' : 'Make a note' }}
      </button>
      <p class="text-note text-soft" role="status">{{ hint }}</p>
    </div>
    <div v-if="tools.notes && isOpen" class="mt-1 border-l-4 border-rule pl-3">
      <label class="text-note text-soft" :for="id">Yours alone; it is kept with the paper and never marked</label>
      <textarea
        :id="id"
        class="field"
        rows="3"
        maxlength="5000"
        :readonly="readonly"
        :value="own.note"
        @input="change({ note: ($event.target as HTMLTextAreaElement).value })"
      />
    </div>
  </div>
</template>
