<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { schoolRoutes } from '~/client/school'
import { fieldSorts, fieldSortWords, type FieldSort, type OwnField } from '~~/core/people'

/** Fields that the school keeps of its students, beside what Thistle needs. */
const { state: fields } = useAsyncState(() => schoolRoutes.fields(), [])
const { problem, busy, act } = useAct()
const draft = reactive({ name: '', sort: 'text' as FieldSort, choices: '' })
const lines = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
async function make() {
  const { name, sort } = draft
  const body = { name, sort, choices: sort === 'choice' ? lines(draft.choices) : [] }
  const all = await act(() => schoolRoutes.makeField({ body }), `“${name}” is kept of students from now on.`)
  if (!all) return
  fields.value = all
  draft.name = draft.choices = ''
}
async function drop({ id, name, sort, choices }: OwnField) {
  const back = () => void schoolRoutes.makeField({ body: { name, sort, choices } }).then((all) => (fields.value = all))
  const left = await act(() => schoolRoutes.dropField({ id }), `“${name}” is out of sight; its values stay.`, back)
  if (left) fields.value = left
}
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1 text-xl">Fields of your own</h2>
    <ul>
      <li v-for="each in fields" :key="each.id" class="flex items-baseline gap-2 border-b border-rule py-1">
        <span class="grow break-words"
          >{{ each.name }}
          <span class="text-label text-soft"
            >{{ fieldSortWords[each.sort]
            }}<template v-if="each.choices.length">: {{ each.choices.join(', ') }}</template></span
          ></span
        >
        <button class="btn btn-quiet py-0" :aria-label="`Take out ${each.name}`" @click="drop(each)">Take out</button>
      </li>
    </ul>
    <p v-if="!fields.length" class="py-2 text-label text-soft">
      What your school wants to know of students: a candidate’s number, a house. Their teachers fill it in.
    </p>
    <form class="mt-3 space-y-2" @submit.prevent="make">
      <LabelledField label="Name of a field"
        ><input v-model="draft.name" class="field" maxlength="80" required
      /></LabelledField>
      <LabelledField label="holds"
        ><select v-model="draft.sort" class="field">
          <option v-for="sort in fieldSorts" :key="sort" :value="sort">{{ fieldSortWords[sort] }}</option>
        </select></LabelledField
      >
      <LabelledField v-if="draft.sort === 'choice'" label="What may be chosen, one a line">
        <textarea v-model="draft.choices" class="field" rows="3" />
      </LabelledField>
      <ProblemNote :words="problem" />
      <button class="btn" :disabled="busy">Make the field</button>
    </form>
  </section>
</template>
