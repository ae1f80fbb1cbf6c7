<script setup lang="ts">
import type { Sheet } from '~~/core/paper/schema'

/** The line of questions at the left: where one is, what is answered, what to come back to. */
const { sheet, answered, flagged, here, closedBefore } = defineProps<{
  sheet: Sheet
  answered: Set<string>
  flagged: Set<string>
  here: string | null
  closedBefore: number
}>()
const emit = defineEmits<{ go: [item: string] }>()
</script>

<template>
  <nav aria-label="Questions of this paper">
    <section v-for="(section, index) in sheet.sections" :key="index" class="mb-5">
      <h2 class="mb-1 text-label">{{ section.title }}</h2>
      <p v-if="section.waits" class="px-2 text-note text-soft">not entered yet</p>
      <ol>
        <template v-for="entry in section.entries" :key="entry.type === 'question' ? entry.id : ''">
          <li v-if="entry.type === 'question'">
            <button
              class="flex w-full items-center justify-between gap-2 rounded px-2 py-1 text-left hover:bg-petrol-tint"
              :class="here === entry.id && 'bg-bloom-tint font-semibold'"
              :aria-current="here === entry.id ? 'true' : undefined"
              :disabled="entry.page < closedBefore"
              @click="emit('go', entry.id)"
            >
              <span :class="entry.page < closedBefore && 'text-soft'"
                >{{ entry.number
                }}<span class="sr-only">, {{ answered.has(entry.id) ? 'answered' : 'not answered' }}</span></span
              >
              <span class="text-note"
                ><span v-if="flagged.has(entry.id)" class="mr-2 text-bloom">come back</span
                ><span v-if="answered.has(entry.id)" class="text-petrol" aria-hidden="true">answered</span></span
              >
            </button>
          </li>
        </template>
      </ol>
    </section>
  </nav>
</template>
