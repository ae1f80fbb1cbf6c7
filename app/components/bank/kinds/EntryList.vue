<script setup lang="ts" generic="T extends { id: string; html: string }">
import { ArrowDown, ArrowUp, Trash2 } from '@lucide/vue'

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
          <button
            type="button"
            class="btn btn-quiet p-1"
            :disabled="index === 0"
            :aria-label="`Move ${name.toLowerCase()} ${index + 1} up`"
            @click="move(index, index - 1)"
          >
            <ArrowUp :size="16" />
          </button>
          <button
            type="button"
            class="btn btn-quiet p-1"
            :disabled="index === entries.length - 1"
            :aria-label="`Move ${name.toLowerCase()} ${index + 1} down`"
            @click="move(index, index + 1)"
          >
            <ArrowDown :size="16" />
          </button>
          <button
            type="button"
            class="btn btn-quiet p-1"
            :disabled="entries.length <= least"
            :aria-label="`Take out ${name.toLowerCase()} ${index + 1}`"
            @click="
              emit(
                'change',
                entries.filter((each) => each.id !== entry.id),
              )
            "
          >
            <Trash2 :size="16" />
          </button>
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
