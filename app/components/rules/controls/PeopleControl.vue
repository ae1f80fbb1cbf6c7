<script setup lang="ts">
import { few } from '~~/core/kit/phrases'
import { alikeName } from '~~/core/people'
import { until } from '@vueuse/core'
import { studentRoutes } from '~/client/students'
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
/** A list of those who are invited, by their addresses. */
const list = ref('')
const unknown = ref<string[]>([])
const { problem, busy, act } = useAct()
async function invite() {
  const found = await act(() => studentRoutes.byAddress({ body: { list: list.value } }))
  if (!found) return
  unknown.value = found.unknown
  const fresh = found.students.map(({ id }) => id).filter((id) => !chosen.value.includes(id))
  if (!fresh.length) return
  const kept = until(() => store.savedAt).changed({ timeout: 10_000 })
  emit('edit', addTo(place.path, chosen.value.at(-1) ?? null, fresh))
  list.value = ''
  // Their names come with the quiz, once it is kept that it is for them.
  await kept
  await store.reload()
}
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
    <details v-if="control.of === 'students'" class="mt-2">
      <summary class="text-label">Invite by a list of addresses</summary>
      <form class="mt-1" @submit.prevent="invite">
        <textarea
          v-model="list"
          class="field"
          rows="3"
          aria-label="Addresses, one a line"
          placeholder="petra@school.example"
          maxlength="100000"
        />
        <button class="btn mt-1 py-1" :disabled="busy || !list.trim()">Invite them</button>
      </form>
      <ProblemNote :words="problem" />
      <p v-if="unknown.length" role="status" class="text-note text-amber">
        Not students of this school: {{ few(unknown, 5) }}.
      </p>
    </details>
    <p v-if="onlyOne" class="mt-1 text-note text-soft">To change it, choose another first.</p>
  </fieldset>
</template>
