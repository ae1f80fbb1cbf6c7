<script setup lang="ts">
import { objectiveRoutes } from '~/client/objectives'
import { count } from '~~/core/kit/phrases'
import type { Objective, ObjectiveBody, ObjectiveFate } from '~~/server/domain/bank/describing/objectives'

useHead({ title: 'Objectives · Thistle' })
const objectives = shallowRef<Objective[] | null>(null)
const { problem, act } = useAct()
const writing = ref<(ObjectiveBody & { id: string | null }) | null>(null)
const file = shallowRef<File | null>(null)
const fates = shallowRef<ObjectiveFate[] | null>(null)
const byId = computed(() => new Map((objectives.value ?? []).map((each) => [each.id, each])))
const depth = (each: Objective): number => (each.parent === null ? 0 : 1 + depth(byId.value.get(each.parent)!))
const nameOf = (id: string) => {
  const found = byId.value.get(id)
  return found ? found.code || found.title : '…'
}
const changes = computed(() => fates.value?.filter((each) => each.fate !== 'same').length ?? 0)

const load = () =>
  act(async () => {
    objectives.value = await objectiveRoutes.list()
  })
onMounted(load)
const begin = (parent: string | null) => {
  writing.value = { id: null, code: '', title: '', parent, essential: false, needs: [] }
}
const edit = (each: Objective) => {
  writing.value = { ...each, needs: [...each.needs] }
}
const keep = () =>
  act(async () => {
    const { id, ...body } = writing.value!
    const { code, title, parent, essential, needs } = body
    const values = { code, title, parent, essential, needs }
    await (id ? objectiveRoutes.change({ id, body: values }) : objectiveRoutes.add({ body: values }))
    writing.value = null
    await load()
  })
const remove = (each: Objective) =>
  act(async () => {
    const { id, ...body } = each
    await objectiveRoutes.remove({ id })
    announce(`“${nameOf(id)}” is taken away.`, () => {
      void objectiveRoutes.add({ body }).then(load)
    })
    await load()
  })
function chosen(event: Event) {
  const field = event.target as HTMLInputElement
  file.value = field.files?.[0] ?? null
  field.value = ''
  fates.value = null
  if (file.value)
    void act(async () => {
      fates.value = await objectiveRoutes.look({ body: file.value })
    })
}
const bring = () =>
  act(async () => {
    const { added, changed } = await objectiveRoutes.bringIn({ body: file.value })
    announce(`${count(added, 'objective')} added, ${changed} changed.`)
    file.value = null
    fates.value = null
    await load()
  })
const fateWords = { new: 'new', changed: 'changes one that is there', same: 'the same' }
const toggleNeed = (id: string) => {
  const body = writing.value!
  body.needs = body.needs.includes(id) ? body.needs.filter((each) => each !== id) : [...body.needs, id]
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-6">
    <p class="text-label"><NuxtLink class="link" to="/bank">Bank</NuxtLink></p>
    <div class="mt-1 flex flex-wrap items-center gap-3">
      <h1 class="mr-auto text-3xl">Objectives</h1>
      <label class="btn cursor-pointer focus-within:outline-2 focus-within:outline-bloom"
        >Bring in a file<input type="file" class="sr-only" accept=".json,.csv" @change="chosen" /></label
      ><button class="btn btn-main" @click="begin(null)">Add a subject</button>
    </div>
    <p class="mt-2 text-soft">
      What students are to know or be able to do, as a tree: a subject at the top of each. Files may be CASE packages in
      JSON, or CSV (<a class="link" href="/api/objectives/file?as=csv" download>these as CSV</a>,
      <a class="link" href="/api/objectives/file?as=case" download>as CASE</a>).
    </p>
    <ProblemNote class="mt-3" :words="problem" />
    <section v-if="fates" class="mt-4 border border-rule bg-sheet p-4" aria-label="What the file would do">
      <p class="flex flex-wrap items-center gap-3">
        <strong>{{ file?.name }}: {{ count(fates.length, 'objective') }}</strong
        ><button class="btn btn-main" :disabled="!changes" @click="bring">
          {{ changes ? `Bring in ${changes}` : 'All are there already' }}</button
        ><button class="btn" @click="fates = null">Leave it</button
        ><span class="text-small text-soft">Nothing is kept yet. What comes in is taken out one by one.</span>
      </p>
      <ul class="mt-3 max-h-80 overflow-y-auto" tabindex="0" aria-label="Objectives of the file">
        <li
          v-for="(each, index) in fates"
          :key="index"
          class="py-0.5"
          :style="{ paddingLeft: `${each.depth * 1.25}rem` }"
        >
          {{ each.code }} {{ each.title }}
          <span
            class="text-note"
            :class="each.fate === 'new' ? 'text-green' : each.fate === 'changed' ? 'text-petrol' : 'text-soft'"
            >· {{ fateWords[each.fate] }}</span
          >
        </li>
      </ul>
    </section>
    <EmptyNote v-if="objectives && !objectives.length" class="mt-4" title="No objective yet"
      >Add a subject, then objectives under it; or bring in a file.</EmptyNote
    >
    <ul class="mt-4 border-t border-ink">
      <li
        v-for="each in objectives ?? []"
        :key="each.id"
        class="border-b border-rule py-2"
        :style="{ paddingLeft: `${depth(each) * 1.5}rem` }"
      >
        <div class="flex flex-wrap items-baseline gap-x-3">
          <span :class="each.parent === null ? 'text-lg font-semibold' : ''"
            ><span class="text-soft">{{ each.code }}</span> {{ each.title }}</span
          >
          <span v-if="each.essential" class="tag py-0">essential</span>
          <span v-if="each.needs.length" class="text-note text-soft"
            >needs {{ each.needs.map(nameOf).join(', ') }} first</span
          >
          <span class="ml-auto flex gap-3 text-small"
            ><button class="link" :aria-label="`add under it: ${nameOf(each.id)}`" @click="begin(each.id)">
              add under it</button
            ><button class="link" :aria-label="`change ${nameOf(each.id)}`" @click="edit(each)">change</button
            ><button class="link" :aria-label="`take away ${nameOf(each.id)}`" @click="remove(each)">
              take away
            </button></span
          >
        </div>
      </li>
    </ul>
    <ModalDialog
      :open="writing !== null"
      :title="writing?.id ? 'Change the objective' : 'New objective'"
      @close="writing = null"
    >
      <form v-if="writing" class="space-y-3" @submit.prevent="keep">
        <div class="grid grid-cols-[7rem_1fr] gap-3">
          <LabelledField label="Code"><input v-model="writing.code" class="field py-1" maxlength="40" /></LabelledField
          ><LabelledField label="Objective"
            ><input v-model="writing.title" class="field py-1" maxlength="1000" required
          /></LabelledField>
        </div>
        <LabelledField label="Lies under"
          ><select v-model="writing.parent" class="field py-1">
            <option :value="null">nothing: a subject</option>
            <option
              v-for="each in (objectives ?? []).filter((other) => other.id !== writing!.id)"
              :key="each.id"
              :value="each.id"
            >
              {{ each.code }} {{ each.title }}
            </option>
          </select></LabelledField
        >
        <TickBox v-model="writing.essential">essential</TickBox>
        <fieldset>
          <legend class="label">Needs first</legend>
          <div class="max-h-40 overflow-y-auto border border-rule px-2 py-1">
            <TickBox
              v-for="each in (objectives ?? []).filter((other) => other.id !== writing!.id)"
              :key="each.id"
              class="text-label"
              :model-value="writing.needs.includes(each.id)"
              @update:model-value="toggleNeed(each.id)"
              >{{ each.code }} {{ each.title }}</TickBox
            >
          </div>
        </fieldset>
        <ProblemNote :words="problem" />
        <div class="flex justify-end gap-2">
          <button type="button" class="btn" @click="writing = null">Leave it</button
          ><button class="btn btn-main">Keep</button>
        </div>
      </form>
    </ModalDialog>
  </main>
</template>
