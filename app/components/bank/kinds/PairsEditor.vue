<script setup lang="ts">
import type { KindName } from '~~/core/question'
import { plainText } from '~~/core/question/allowed-html'
import { creditsKept } from '~~/core/question/kinds/credits'
import { allCredits, byCredits, placedAt, type Item, type PairsBody } from '~~/core/question/kinds/pairs-score'
import type { CreditRow } from './CreditTable.vue'

/** Matching: what goes with what. Sorting: things and the groups that they belong to. */
const { body, kind } = defineProps<{ body: PairsBody; kind: KindName }>()
const sorting = computed(() => kind === 'sorting')
const emit = defineEmits<{ 'update:body': [PairsBody] }>()
const set = (values: Partial<PairsBody>) => emit('update:body', { ...body, ...values })
const setItem = (id: string, values: Partial<Item>) =>
  set({ items: body.items.map((item) => (item.id === id ? { ...item, ...values } : item)) })
const setCredits = (id: string, credits: Record<string, number>) => setItem(id, { credits })
const words = (html: string, index: number) =>
  plainText(html).slice(0, 50) || `${sorting.value ? 'Group' : 'Partner'} ${index + 1}`
const target = (event: Event) => (event.target as HTMLSelectElement).value || null

/** A new left-hand entry of a matching brings a partner along. */
function setItems(items: Item[]) {
  const added = items.find((item) => !body.items.some((each) => each.id === item.id))
  if (!added || sorting.value) {
    set({ items })
    return
  }
  const partner = Array.from({ length: 200 }, (_, i) => `p${i + 1}`).find(
    (id) => !body.targets.some((each) => each.id === id),
  )!
  set({
    items: items.map((item) => (item === added ? placedAt(body, item, partner) : item)),
    targets: [...body.targets, { id: partner, html: '' }],
  })
}
/** A place that is gone takes what was said of it along. */
const setTargets = (targets: PairsBody['targets']) =>
  set({
    targets,
    items: body.items.map((item) => creditsKept(item, (place) => targets.some(({ id }) => id === place))),
  })
const rules = [
  ['share', 'a share for every pair that is right'],
  ['all', 'everything when all pairs are right, else nothing'],
  ['credits', 'what each of its pairs adds'],
] as const
const setRule = (rule: PairsBody['rule']) => set(rule === 'credits' ? byCredits(body) : { rule })
const rows = computed<CreditRow[]>(() =>
  body.items.map((item, i) => ({
    id: item.id,
    words: plainText(item.html) || `${sorting.value ? 'Thing' : 'Left entry'} ${i + 1}`,
    credits: item.credits ?? {},
    right: item.target === null ? [] : [item.target],
  })),
)
const columns = computed(() => body.targets.map(({ id, html }, i) => ({ id, words: words(html, i) })))
</script>

<template>
  <div class="space-y-5">
    <fieldset>
      <legend class="small-head mb-2">
        {{ sorting ? 'Groups' : 'Right: partners to choose from; some may be left over' }}
      </legend>
      <EntryList
        :entries="body.targets"
        :name="sorting ? 'Group' : 'Partner'"
        :most="40"
        :make="(id) => ({ id, html: '' })"
        @change="setTargets"
      />
    </fieldset>
    <fieldset>
      <legend class="small-head mb-2">{{ sorting ? 'Things to sort' : 'Left: what is matched' }}</legend>
      <EntryList
        v-slot="{ entry, index }"
        :entries="body.items"
        :name="sorting ? 'Thing' : 'Left entry'"
        :most="40"
        :make="(id) => ({ id, html: '', comment: '', target: null })"
        @change="setItems"
      >
        <div class="flex flex-wrap items-center gap-2">
          <label class="text-note text-soft"
            >{{ sorting ? 'belongs to' : 'goes with' }}
            <select
              class="field inline-block w-auto! max-w-[min(16rem,55vw)] py-0.5!"
              :aria-label="`${sorting ? 'Group' : 'Partner'} of entry ${index + 1}`"
              :value="entry.target ?? ''"
              @change="setItem(entry.id, placedAt(body, entry, target($event)))"
            >
              <option value="">{{ sorting ? 'no group' : 'nothing' }}</option>
              <option v-for="(each, at) in body.targets" :key="each.id" :value="each.id">
                {{ words(each.html, at) }}
              </option>
            </select>
          </label>
          <label v-if="body.rule === 'share'" class="text-note text-soft"
            >counts
            <input
              class="field inline-block w-16! py-0.5!"
              type="number"
              min="0.01"
              max="100"
              step="any"
              :aria-label="`What the pair of entry ${index + 1} counts`"
              :value="entry.weight ?? 1"
              @change="setItem(entry.id, { weight: Number(($event.target as HTMLInputElement).value) || 1 })"
          /></label>
          <CommentField
            class="min-w-40 grow"
            :label="`Comment when entry ${index + 1} is placed wrongly`"
            words="comment for who places it wrongly"
            :model-value="entry.comment"
            @update:model-value="setItem(entry.id, { comment: $event })"
          />
        </div>
      </EntryList>
    </fieldset>
    <EarnsByPart
      thing="pair"
      :body="body"
      :rules="rules"
      :rows="rows"
      :columns="columns"
      :all="allCredits(body)"
      @rule="setRule"
      @set="set"
      @credits="setCredits"
    />
  </div>
</template>
