<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { schoolRoutes } from '~/client/school'
import { scaleFault, type SchoolScale } from '~~/core/marking'
import { readBoundary } from '~~/core/quiz/closing'

/** Grade scales of the school: bands with where each begins, checked as they are typed. */
const { state: scales } = useAsyncState(() => schoolRoutes.scales(), [])
const { problem, busy, act } = useAct()
interface Draft {
  id: string | null
  name: string
  bands: { typed: string; label: string }[]
}
const draft = ref<Draft | null>(null)
const blank = (): Draft => ({
  id: null,
  name: '',
  bands: [
    { typed: '85 %', label: '' },
    { typed: '60 %', label: '' },
    { typed: '0 %', label: '' },
  ],
})
const edit = ({ id, name, bands }: SchoolScale) => {
  draft.value = { id, name, bands: bands.map(({ from, label }) => ({ typed: `${from} %`, label })) }
}
const read = computed(() =>
  (draft.value?.bands ?? []).map(({ typed, label }) => ({ from: readBoundary(typed), label: label.trim() })),
)
/** What is wrong with it as it stands. */
const fault = computed(() => {
  const none = read.value.findIndex(({ from }) => from === null)
  if (none >= 0) return `“${draft.value!.bands[none]!.typed}” is no boundary. Write it as 85, 85 % or 85.0.`
  const bands = read.value.map(({ from, label }) => ({ from: from!, label }))
  return bands.some(({ label }) => !label) ? 'Give each band its name.' : scaleFault(bands)
})
async function keep() {
  const { id, name } = draft.value!
  const body = { name, bands: read.value.map(({ from, label }) => ({ from: from!, label })) }
  const kept = await act(
    () => (id === null ? schoolRoutes.makeScale({ body }) : schoolRoutes.keepScale({ id, body })),
    `“${name}” is kept. Quizzes that use it say in their checks when it has changed.`,
  )
  if (!kept) return
  scales.value = kept
  draft.value = null
}
async function drop({ id, name, bands }: SchoolScale) {
  const left = await act(
    () => schoolRoutes.dropScale({ id }),
    `“${name}” is taken out. Quizzes that use it keep it.`,
    () => void schoolRoutes.makeScale({ body: { name, bands } }).then((all) => (scales.value = all)),
  )
  if (left) scales.value = left
}
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1 text-xl">Grade scales</h2>
    <ul>
      <li v-for="each in scales" :key="each.id" class="border-b border-rule py-1">
        <span class="flex items-baseline gap-2"
          ><span class="grow break-words">{{ each.name }}</span
          ><button class="btn btn-quiet py-0" :aria-label="`Change ${each.name}`" @click="edit(each)">Change…</button
          ><button class="btn btn-quiet py-0" :aria-label="`Take out ${each.name}`" @click="drop(each)">
            Take out
          </button></span
        >
        <span class="text-label text-soft">{{
          [...each.bands]
            .sort((a, b) => b.from - a.from)
            .map(({ label, from }) => `${label} from ${from} %`)
            .join(', ')
        }}</span>
      </li>
    </ul>
    <p v-if="!scales.length" class="py-2 text-label text-soft">
      Grades are told in percent, in points, or as passed or not. A scale of letters or words is made here.
    </p>
    <button class="btn mt-2" @click="draft = blank()">Make a scale…</button>
    <ModalDialog
      :open="draft !== null"
      :title="draft?.id ? `The scale “${draft.name}”` : 'A new scale'"
      @close="draft = null"
    >
      <form v-if="draft" class="space-y-4" @submit.prevent="keep">
        <LabelledField label="Name of the scale"
          ><input v-model="draft.name" class="field" maxlength="80" required
        /></LabelledField>
        <table class="w-full text-left">
          <thead>
            <tr class="small-head">
              <th>Band</th>
              <th>begins at</th>
              <th><span class="sr-only">Take out</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(band, i) in draft.bands" :key="i">
              <td class="py-1 pr-2">
                <input v-model="band.label" class="field" maxlength="40" :aria-label="`Name of band ${i + 1}`" />
              </td>
              <td class="w-28 pr-2">
                <input v-model="band.typed" class="field" maxlength="10" :aria-label="`Band ${i + 1} begins at`" />
              </td>
              <td class="w-20">
                <button
                  type="button"
                  class="btn btn-quiet py-0"
                  :aria-label="`Take out band ${i + 1}`"
                  @click="draft.bands.splice(i, 1)"
                >
                  Take out
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <button type="button" class="btn" @click="draft.bands.push({ typed: '', label: '' })">Add a band</button>
        <p v-if="fault" class="note-look" role="status">{{ fault }}</p>
        <ProblemNote :words="problem" />
        <div class="flex justify-end gap-2">
          <button type="button" class="btn" @click="draft = null">Leave it</button
          ><button class="btn btn-main" :disabled="busy || fault !== null">Keep</button>
        </div>
      </form>
    </ModalDialog>
    <ProblemNote v-if="!draft" class="mt-2" :words="problem" />
  </section>
</template>
