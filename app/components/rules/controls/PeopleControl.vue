<script setup lang="ts">
import { alikeName } from '~~/core/people'
import { addTo, removeFrom, type Edit } from '~~/core/quiz/edits'
import type { Slot } from '~~/core/rules'

/** For whom: classes, groups or students, put in and taken out one by one, so that two teachers' choices merge. One of all stays. */
const { place } = defineProps<{ place: Slot }>()
const emit = defineEmits<{ edit: [Edit] }>()
const store = useQuiz()
const control = computed(() => place.control as Extract<Slot['control'], { sort: 'people' }>)
const chosen = computed(() => place.value as string[])
const all = computed(() => store.view![control.value.of] as readonly { id: string; name: string }[])
/** Those who are many are found by typing; who is chosen, or was while this is open, stays in sight (and keeps the focus). */
const mostShown = 8
const known = ref(new Set(place.value as string[]))
watch(chosen, (ids) => {
  for (const id of ids) known.value.add(id)
})
const typed = ref('')
const shown = computed(() => {
  if (all.value.length <= mostShown) return all.value
  const wanted = alikeName(typed.value)
  const inSight = all.value.filter(({ id }) => known.value.has(id))
  const found = wanted
    ? all.value.filter(({ id, name }) => !known.value.has(id) && alikeName(name).includes(wanted))
    : []
  return [...inSight, ...found.slice(0, mostShown)]
})
const onlyOne = computed(() => chosen.value.length === 1 && control.value.others === 0)
function toggle(id: string) {
  if (!chosen.value.includes(id)) emit('edit', addTo(place.path, chosen.value.at(-1) ?? null, [id]))
  else if (!onlyOne.value) emit('edit', removeFrom(store.quiz!, place.path, [id]))
}
</script>

<template>
  <fieldset>
    <legend class="small-head">{{ place.name }}</legend>
    <input
      v-if="all.length > mostShown"
      v-model="typed"
      class="field mt-1"
      type="search"
      :placeholder="`Find one of ${all.length}`"
      :aria-label="`Find ${place.name.toLowerCase()}`"
    />
    <TickBox
      v-for="each in shown"
      :key="each.id"
      :model-value="chosen.includes(each.id)"
      :disabled="onlyOne && chosen.includes(each.id)"
      @update:model-value="toggle(each.id)"
      >{{ each.name }}</TickBox
    >
    <p v-if="!all.length" class="text-note text-soft">There are none.</p>
    <p v-if="onlyOne" class="mt-1 text-note text-soft">To change it, choose another first.</p>
  </fieldset>
</template>
