<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { setAt, type Edit, type Path } from '~~/core/quiz/edits'
import type { Slot } from '~~/core/rules'
import { controls } from './controls'

/** A value within a sentence: a control that opens in place. What it sets is an edit like any other. */
const { place } = defineProps<{ place: Slot }>()
const store = useQuiz()
/** What opens: the value itself, and what is set in the same place; of people each list stands for itself. */
const places = computed(() =>
  place.control.sort === 'people' ? (place.also ?? [place]) : [place, ...(place.also ?? [])],
)
const set = (path: Path, value: unknown) => {
  store.make(setAt(store.quiz!, path, value))
}
const make = (edit: Edit) => {
  store.make(edit)
}
</script>

<template>
  <Popover v-slot="{ close }" as="span" class="relative inline-block">
    <PopoverButton
      class="ml-0.5 rounded border border-rule border-b-2 border-b-petrol bg-sheet px-1.5 font-sans text-label font-semibold leading-6 text-petrol hover:bg-petrol-tint"
      :aria-label="`${place.name}: ${place.words}`"
      >{{ place.words }}</PopoverButton
    >
    <PopoverPanel
      class="absolute left-0 top-full z-20 mt-1 w-max min-w-52 max-w-[min(24rem,85vw)] space-y-3 border border-rule bg-sheet p-3 font-sans text-label leading-normal shadow-lg"
      focus
    >
      <div v-for="each in places" :key="each.path.join()">
        <p v-if="place.also?.length && each !== place && each.control.sort !== 'people'" class="small-head">
          {{ each.name }}
        </p>
        <component
          :is="controls[each.control.sort]"
          :place="each"
          @set="set(each.path, $event)"
          @edit="make"
          @close="close()"
        />
      </div>
    </PopoverPanel>
  </Popover>
</template>
