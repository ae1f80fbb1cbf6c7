<script setup lang="ts" generic="T extends { id: string; html: string }">
/** Entries of rich text that can be moved, added and taken out: lines of an ordering, things, places, partners. */
const {
  entries,
  name,
  least = 2,
  most = 30,
  ordered = false,
} = defineProps<{
  entries: T[]
  /** What one of them is called. */ name: string
  least?: number
  most?: number
  /** The order says something. */ ordered?: boolean
  make: (id: string) => T
}>()
const emit = defineEmits<{ change: [entries: T[]] }>()
const list = useTemplateRef<HTMLElement>('list')

function move(from: number, to: number) {
  if (to < 0 || to >= entries.length) return
  const next = [...entries]
  next.splice(to, 0, ...next.splice(from, 1))
  emit('change', next)
}
useDragOrder(list, move)
const freeId = () =>
  Array.from({ length: 200 }, (_, i) => `e${i + 1}`).find((id) => !entries.some((entry) => entry.id === id))!
</script>

<template>
  <div>
    <ol ref="list" class="space-y-2.5">
      <li v-for="(entry, index) in entries" :key="entry.id" class="grid grid-cols-[1.6rem_1fr_auto] items-start gap-2">
        <span
          class="drag-handle mt-2 cursor-grab select-none text-center font-semibold text-soft"
          title="Drag to move"
          >{{ ordered ? index + 1 : '⠿' }}</span
        >
        <div class="space-y-1">
          <RichText
            slim
            :label="`${name} ${index + 1}`"
            :model-value="entry.html"
            @update:model-value="
              emit(
                'change',
                entries.map((each) => (each.id === entry.id ? { ...each, html: $event } : each)),
              )
            "
          />
          <slot :entry="entry" :index="index" />
        </div>
        <div class="flex gap-0.5 pt-1">
          <OrderButtons
            :index="index"
            :count="entries.length"
            :least="least"
            :name="`${name.toLowerCase()} ${index + 1}`"
            @move="move"
            @remove="
              emit(
                'change',
                entries.filter((each) => each.id !== entry.id),
              )
            "
          />
        </div>
      </li>
    </ol>
    <button
      type="button"
      class="btn mt-3"
      :disabled="entries.length >= most"
      @click="emit('change', [...entries, make(freeId())])"
    >
      Add: {{ name.toLowerCase() }}
    </button>
  </div>
</template>
