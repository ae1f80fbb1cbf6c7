<script setup lang="ts">
import { vocabularyRoutes } from '~/client/words'
import type { Vocabulary } from '~~/core/question/vocabulary'

useHead({ title: 'Levels and fields · Thistle' })
const words = ref<Vocabulary>({ schemes: [], fields: [], grades: [] })
const revision = ref(0)
const { problem, act } = useAct()
const loaded = ref(false)
const grades = computed({
  get: () => words.value.grades.join('\n'),
  set: (text: string) => {
    words.value.grades = lines(text)
  },
})
const { changed, found, settle, begin, forget, keeping } = useDraft(() => 'vocabulary', words)
const lines = (text: string) => [
  ...new Set(
    text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean),
  ),
]
const free = (prefix: string, taken: { id: string }[]) =>
  Array.from({ length: 99 }, (_, i) => `${prefix}${i + 1}`).find((each) => !taken.some(({ id }) => id === each))!

function load() {
  return act(async () => {
    const kept = await vocabularyRoutes.get()
    words.value = kept.words
    revision.value = kept.revision
    begin(kept.revision)
    loaded.value = true
  })
}
onMounted(load)
function keep() {
  return keeping(() =>
    act(async () => {
      revision.value = (await vocabularyRoutes.keep({ body: { on: revision.value, words: words.value } })).revision
      settle(revision.value)
      announce('Kept. Questions offer these from now on.')
    }),
  )
}
/** Levels keep their ids by their place, so that renaming one keeps what questions have. */
function setLevels(scheme: Vocabulary['schemes'][number], text: string) {
  const names = text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
  const same = new Map(scheme.levels.map((level) => [level.name, level.id]))
  const unused = scheme.levels.filter((level) => !names.includes(level.name)).map((level) => level.id)
  const ids = [...scheme.levels]
  scheme.levels = names.map((name) => {
    const id = same.get(name) ?? (names.length === ids.length ? unused.shift() : undefined) ?? free('v', ids)
    if (!ids.some((each) => each.id === id)) ids.push({ id, name })
    return { id, name }
  })
}
const addScheme = () => words.value.schemes.push({ id: free('s', words.value.schemes), name: '', levels: [] })
const addField = () => words.value.fields.push({ id: free('f', words.value.fields), name: '', values: [] })
const value = (event: Event) => (event.target as HTMLTextAreaElement).value
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-6">
    <p class="text-label"><NuxtLink class="link" to="/bank">Bank</NuxtLink></p>
    <div class="mt-1 flex flex-wrap items-center justify-between gap-3">
      <h1 class="text-3xl">Levels and fields</h1>
      <button class="btn btn-main" :disabled="!changed" @click="keep">Keep for the school</button>
    </div>
    <p class="mt-2 text-soft">
      How your school describes its questions. A question keeps what it was given, even when a level or a value is taken
      out here.
    </p>
    <FoundDraft :found="found" @forget="forget" />
    <ProblemNote class="mt-3" :words="problem" />
    <template v-if="loaded">
      <section class="mt-6 space-y-4" aria-labelledby="schemes">
        <h2 id="schemes" class="border-b border-ink pb-1 text-xl">Thinking levels</h2>
        <EmptyNote v-if="!words.schemes.length" title="No scheme yet"
          >A scheme is a row of levels from the simplest up: of a taxonomy, say, or of cognitive depth. A school may
          keep several.</EmptyNote
        >
        <fieldset
          v-for="(scheme, index) in words.schemes"
          :key="scheme.id"
          class="grid gap-3 bg-sheet p-4 sm:grid-cols-[1fr_1.4fr]"
        >
          <legend class="sr-only">Scheme {{ index + 1 }}</legend>
          <LabelledField label="Name of the scheme"
            ><input v-model="scheme.name" class="field py-1" maxlength="80"
          /></LabelledField>
          <LabelledField label="Levels, one a line, the simplest first">
            <textarea
              class="field"
              :rows="Math.max(4, scheme.levels.length + 1)"
              :value="scheme.levels.map((level) => level.name).join('\n')"
              @change="setLevels(scheme, value($event))"
            />
          </LabelledField>
          <button type="button" class="link justify-self-start text-label" @click="words.schemes.splice(index, 1)">
            Take the scheme out
          </button>
        </fieldset>
        <button type="button" class="btn" :disabled="words.schemes.length >= 6" @click="addScheme">Add a scheme</button>
      </section>
      <section class="mt-8 space-y-4" aria-labelledby="fields">
        <h2 id="fields" class="border-b border-ink pb-1 text-xl">Fields of your own</h2>
        <fieldset
          v-for="(field, index) in words.fields"
          :key="field.id"
          class="grid gap-3 bg-sheet p-4 sm:grid-cols-[1fr_1.4fr]"
        >
          <legend class="sr-only">Field {{ index + 1 }}</legend>
          <LabelledField label="Name of the field"
            ><input v-model="field.name" class="field py-1" maxlength="80"
          /></LabelledField>
          <LabelledField label="Values, one a line; none lets anything be written">
            <textarea
              class="field"
              rows="3"
              :value="field.values.join('\n')"
              @change="field.values = lines(value($event))"
            />
          </LabelledField>
          <button type="button" class="link justify-self-start text-label" @click="words.fields.splice(index, 1)">
            Take the field out
          </button>
        </fieldset>
        <button type="button" class="btn" :disabled="words.fields.length >= 12" @click="addField">Add a field</button>
      </section>
      <section class="mt-8" aria-labelledby="grades-head">
        <h2 id="grades-head" class="border-b border-ink pb-1 text-xl">Grade levels</h2>
        <LabelledField label="Those that are offered, one a line" class="mt-3">
          <textarea class="field" rows="4" :value="grades" @change="grades = value($event)" />
        </LabelledField>
      </section>
    </template>
  </main>
</template>
