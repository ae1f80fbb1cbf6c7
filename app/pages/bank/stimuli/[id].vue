<script setup lang="ts">
import { stimulusRoutes } from '~/client/stimuli'
import { languageCode } from '~~/core/question/language'
import { kindLabels } from '~~/core/question/kinds'
import type { Stimulus } from '~~/core/question'
import type { StimulusDetail } from '~~/server/domain/bank/material/stimuli'

const route = useRoute()
const id = computed(() => String(route.params.id))
const isNew = computed(() => id.value === 'new')
const written = ref<Stimulus>({ name: '', language: 'en', html: '', source: '', translations: {} })
const detail = shallowRef<StimulusDetail | null>(null)
const { problem, busy, act } = useAct()
const kind = ref('choice')
const other = ref('')
useHead({ title: () => `${written.value.name || 'New stimulus'} · Thistle` })
const { changed, found, settle, settleAt, begin, forget, keeping } = useDraft(() => `stimulus:${id.value}`, written)
if (isNew.value) begin()

/** The page is there at once and is filled when its stimulus has come: a page that waits can be left half way. */
const ready = ref(isNew.value)
function load() {
  return act(async () => {
    detail.value = await stimulusRoutes.get({ id: id.value })
    written.value = detail.value.stimulus
    begin(detail.value.version)
    ready.value = true
  })
}
function reload() {
  return act(async () => {
    detail.value = await stimulusRoutes.get({ id: id.value })
  })
}
if (!isNew.value) void load()
async function keep() {
  const { reply, goes } = await keeping(() => act(send))
  if (!reply) return
  // What was written while it was being kept stays, as a change to it.
  if (!isNew.value) await (changed.value ? reload() : load())
  else if (!goes) await navigateTo(`/bank/stimuli/${reply.id}`, { replace: true })
}
async function send() {
  const made = isNew.value
    ? await stimulusRoutes.add({ body: written.value })
    : await stimulusRoutes.change({ id: id.value, body: { on: detail.value!.version, stimulus: written.value } })
  if (isNew.value) settleAt(`stimulus:${made.id}`, made.version)
  else settle(made.version)
  announce(`Version ${made.version} is kept. Quizzes that are open keep theirs.`)
  return made
}
async function remove() {
  if (
    !(await confirmed(
      'Take this stimulus away?',
      'It is taken away for good: this cannot be undone.',
      'Take it away',
      'Leave it',
    ))
  )
    return
  await act(async () => {
    await stimulusRoutes.remove({ id: id.value })
    settle()
    await navigateTo('/bank/stimuli')
  })
}
function addLanguage() {
  const code = other.value.trim()
  if (!languageCode.test(code) || code === written.value.language) {
    problem.value = 'Write another language as its code, such as nl or fr.'
    return
  }
  written.value = { ...written.value, translations: { [code]: '', ...written.value.translations } }
  other.value = ''
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-6">
    <p class="text-label">
      <NuxtLink class="link" to="/bank">Bank</NuxtLink> · <NuxtLink class="link" to="/bank/stimuli">Stimuli</NuxtLink>
    </p>
    <div class="mt-1 flex flex-wrap items-center gap-3">
      <h1 class="min-w-0 text-2xl [overflow-wrap:anywhere]">
        {{ isNew ? 'New stimulus' : ready ? written.name : 'Loading …' }}
      </h1>
      <span v-if="detail" class="text-label text-soft">version {{ detail.version }}</span>
      <div class="ml-auto flex flex-wrap gap-2">
        <button v-if="detail && !detail.questions.length" class="btn" :disabled="busy" @click="remove">
          Take it away
        </button>
        <button class="btn btn-main" :disabled="busy || !changed" @click="keep">
          {{ isNew ? 'Keep in the bank' : 'Keep as a new version' }}
        </button>
      </div>
    </div>
    <FoundDraft :found="found" @forget="forget" />
    <ProblemNote class="mt-3" :words="problem" />
    <div v-if="ready" class="mt-5 space-y-5">
      <LabelledField label="Name, for teachers"
        ><input v-model="written.name" class="field" maxlength="160"
      /></LabelledField>
      <div>
        <span class="label">What the questions share</span
        ><RichText
          label="What the questions share"
          :language="written.language"
          :model-value="written.html"
          @update:model-value="written = { ...written, html: $event }"
        />
      </div>
      <LabelledField label="Source"><input v-model="written.source" class="field" maxlength="200" /></LabelledField>
      <details>
        <summary class="small-head">
          Languages: {{ [written.language, ...Object.keys(written.translations)].map(languageName).join(', ') }}
        </summary>
        <div class="mt-3 space-y-3">
          <div v-for="(html, code) in written.translations" :key="code">
            <span class="label"
              >In {{ languageName(String(code)) }}<span v-if="!html" class="ml-2 text-amber">missing</span></span
            ><RichText
              :label="`In ${languageName(String(code))}`"
              :language="String(code)"
              :model-value="html"
              @update:model-value="written = { ...written, translations: { ...written.translations, [code]: $event } }"
            />
          </div>
          <form class="flex items-end gap-2" @submit.prevent="addLanguage">
            <label class="text-note text-soft"
              >Another language<input
                v-model="other"
                class="field block w-24! py-1"
                placeholder="nl"
                maxlength="20" /></label
            ><button class="btn py-1">Add</button>
          </form>
        </div>
      </details>
    </div>
    <section v-if="detail" class="mt-8">
      <h2 class="small-head">Questions on it</h2>
      <ul class="border-t border-ink">
        <li v-for="hit in detail.questions" :key="hit.id" class="border-b border-rule py-2.5">
          <NuxtLink :to="`/bank/${hit.id}`" class="font-serif text-lg hover:underline">{{ hit.title }}</NuxtLink>
          <p class="text-label text-green"><span class="text-soft">Key</span> {{ hit.key || 'not set' }}</p>
        </li>
      </ul>
      <p v-if="!detail.questions.length" class="py-2 text-soft">None yet.</p>
      <form
        class="mt-3 flex flex-wrap items-end gap-2"
        @submit.prevent="navigateTo({ path: '/bank/new', query: { kind, stimulus: id } })"
      >
        <label class="text-note text-soft"
          >Kind<select v-model="kind" class="field block py-1">
            <option v-for="(label, name) in kindLabels" :key="name" :value="name">{{ label }}</option>
          </select></label
        ><button class="btn">Write a question on it</button>
      </form>
    </section>
  </main>
</template>
