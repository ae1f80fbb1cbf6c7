<script setup lang="ts">
import type Sortable from 'sortablejs'
import { plainText } from '~~/core/question/allowed-html'
import type { SealedBody } from '~~/core/question/kinds/sealed'

/** Things to put in order: by dragging, with the buttons, or with Alt and the arrow keys. It starts shuffled and unanswered. */
const { body, order, readonly } = defineProps<{
  body: Extract<SealedBody, { asks: 'order' }>
  order: string[] | null
  labelledby: string
  readonly: boolean
}>()
const emit = defineEmits<{ arrange: [order: string[] | null] }>()
const current = computed(() => order ?? body.items.map((item) => item.id))
const htmlOf = (id: string) => body.items.find((item) => item.id === id)?.html ?? ''
const words = (id: string) => plainText(htmlOf(id)) || 'a picture'
const list = useTemplateRef<HTMLElement>('list')

async function move(id: string, to: number) {
  if (readonly || to < 0 || to >= current.value.length) return
  const next = current.value.filter((each) => each !== id)
  next.splice(to, 0, id)
  emit('arrange', next)
  announce(`${words(id)} is now ${to + 1} of ${next.length}.`)
  await nextTick()
  list.value?.querySelector<HTMLElement>(`[data-thing="${id}"]`)?.focus()
}

let sortable: Sortable | undefined
onMounted(() => {
  sortable = draggable(list.value!, ({ item, newIndex }) => void move(item.dataset.thing!, newIndex), {
    filter: 'button',
    preventOnFilter: false,
    disabled: readonly,
  })
})
watch(
  () => readonly,
  (value) => sortable?.option('disabled', value),
)
onBeforeUnmount(() => sortable?.destroy())
</script>

<template>
  <div role="group" :aria-labelledby="labelledby">
    <ol ref="list" :class="body.layout === 'row' ? 'flex flex-wrap gap-2' : 'space-y-2'">
      <li
        v-for="(id, index) in current"
        :key="id"
        :data-thing="id"
        :tabindex="readonly ? undefined : 0"
        class="flex items-center gap-3 rounded border border-rule bg-sheet px-3 py-2"
        :class="readonly ? '' : 'cursor-grab'"
        :aria-label="`${index + 1}: ${words(id)}`"
        @keydown.alt.up.prevent="move(id, index - 1)"
        @keydown.alt.down.prevent="move(id, index + 1)"
        @keydown.alt.left.prevent="move(id, index - 1)"
        @keydown.alt.right.prevent="move(id, index + 1)"
      >
        <span class="font-semibold text-soft" aria-hidden="true">{{ index + 1 }}</span>
        <WrittenText :html="htmlOf(id)" class="min-w-0 grow text-lg" />
        <span v-if="!readonly" class="flex gap-1">
          <button
            type="button"
            class="btn px-2 py-0.5"
            :disabled="index === 0"
            :aria-label="`Move ${words(id)} earlier`"
            @click="move(id, index - 1)"
          >
            {{ body.layout === 'row' ? '←' : '↑' }}
          </button>
          <button
            type="button"
            class="btn px-2 py-0.5"
            :disabled="index === current.length - 1"
            :aria-label="`Move ${words(id)} later`"
            @click="move(id, index + 1)"
          >
            {{ body.layout === 'row' ? '→' : '↓' }}
          </button>
        </span>
      </li>
    </ol>
    <p v-if="!readonly" class="mt-2 text-label text-soft">
      <template v-if="order"
        >Your order counts as it stands.
        <button type="button" class="link" @click="emit('arrange', null)">Start again</button></template
      >
      <template v-else
        >Not answered yet. Move something, or
        <button type="button" class="link" @click="emit('arrange', current)">take this order as it stands</button
        >.</template
      >
    </p>
    <p v-else-if="!order" class="mt-2 text-label text-soft">Not answered.</p>
  </div>
</template>
