<script setup lang="ts">
import type Sortable from 'sortablejs'
import { plainText } from '~~/core/question/allowed-html'
import type { SealedBody } from '~~/core/question/kinds/sealed'

/**
 * Things to put where they belong: by dragging, or by picking one and then its place (tap, click or key). In a matching the
 * right-hand entries move to the left-hand ones; in a sorting the things move into groups.
 */
const { body, pairs, readonly } = defineProps<{
  body: Extract<SealedBody, { asks: 'pairs' }>
  pairs: Record<string, string>
  name: string
  labelledby: string
  readonly: boolean
}>()
const emit = defineEmits<{ pair: [pairs: Record<string, string>] }>()

const things = computed(() => (body.once ? body.targets : body.items))
const places = computed(() => (body.once ? body.items : body.targets))
const placeOf = (thing: string) => (body.once ? Object.keys(pairs).find((item) => pairs[item] === thing) : pairs[thing])
const inPlace = (place: string) => things.value.filter((thing) => placeOf(thing.id) === place)
const loose = computed(() => things.value.filter((thing) => placeOf(thing.id) === undefined))
const words = (id: string) =>
  plainText([...body.items, ...body.targets].find((each) => each.id === id)?.html ?? '') || 'a picture'
const picked = ref<string | null>(null)

function put(thing: string, place: string | null) {
  if (readonly) return
  const rest = Object.entries(pairs).filter(([item, target]) =>
    body.once ? target !== thing && item !== place : item !== thing,
  )
  emit('pair', Object.fromEntries(place === null ? rest : [...rest, body.once ? [place, thing] : [thing, place]]))
  announce(place === null ? `${words(thing)} taken back.` : `${words(thing)} put to ${words(place)}.`)
  picked.value = null
}
const pick = (thing: string) => {
  if (!readonly) picked.value = picked.value === thing ? null : thing
}

/** Chips are dragged between the places of one question only. */
const group = useId()
const root = useTemplateRef<HTMLElement>('root')
let sortables: Sortable[] = []
function dragging() {
  sortables.forEach((each) => each.destroy())
  sortables = readonly
    ? []
    : [...(root.value?.querySelectorAll<HTMLElement>('[data-place]') ?? [])].map((list) =>
        draggable(
          list,
          ({ item, from, to }) => {
            if (from !== to) put(item.dataset.thing!, to.dataset.place === '' ? null : to.dataset.place!)
          },
          { group, draggable: '[data-thing]', sort: false, animation: 0, fallbackOnBody: true },
        ),
      )
}
onMounted(dragging)
watch([() => body, () => readonly], () => nextTick(dragging))
onBeforeUnmount(() => sortables.forEach((each) => each.destroy()))
</script>

<template>
  <div ref="root" role="group" :aria-labelledby="labelledby">
    <p v-if="!readonly" class="mb-2 text-label text-soft">
      {{
        picked
          ? `Now choose where “${words(picked)}” belongs.`
          : body.once
            ? 'Drag each entry to its partner, or choose it and then its partner.'
            : 'Drag each into its group, or choose it and then its group.'
      }}
    </p>
    <div
      data-place=""
      class="flex min-h-12 flex-wrap gap-2 rounded border border-dashed border-rule p-2"
      :aria-label="body.once ? 'Not matched yet' : 'Not sorted yet'"
      role="group"
    >
      <button
        v-for="thing in loose"
        :key="thing.id"
        type="button"
        :data-thing="thing.id"
        class="chip"
        :aria-pressed="picked === thing.id"
        :disabled="readonly"
        @click="pick(thing.id)"
      >
        <WrittenText :html="thing.html" />
      </button>
      <span v-if="!loose.length" class="self-center px-1 text-label text-soft">nothing left here</span>
    </div>
    <ul :class="body.once ? 'mt-3 space-y-2' : 'mt-3 grid gap-3 sm:grid-cols-2'">
      <li
        v-for="place in places"
        :key="place.id"
        class="rounded border border-rule bg-sheet"
        :class="body.once ? 'grid items-stretch sm:grid-cols-2' : ''"
      >
        <WrittenText
          :html="place.html"
          class="px-3 py-2 text-lg"
          :class="body.once ? '' : 'border-b border-rule font-semibold'"
        />
        <div
          :data-place="place.id"
          class="flex min-h-12 flex-wrap items-center gap-2 p-2"
          :class="body.once && 'border-t border-rule sm:border-l sm:border-t-0'"
          role="group"
          :aria-label="`Put to ${words(place.id)}`"
        >
          <button
            v-for="thing in inPlace(place.id)"
            :key="thing.id"
            type="button"
            :data-thing="thing.id"
            class="chip chip-placed"
            :aria-pressed="picked === thing.id"
            :disabled="readonly"
            @click="pick(thing.id)"
          >
            <WrittenText :html="thing.html" />
          </button>
          <button
            v-if="picked && placeOf(picked) !== place.id"
            type="button"
            class="btn border-dashed! border-bloom! px-2 py-1 text-small text-bloom!"
            :aria-label="`Put ${words(picked)} to ${words(place.id)}`"
            @click="put(picked, place.id)"
          >
            put here
          </button>
        </div>
      </li>
    </ul>
    <button
      v-if="picked && placeOf(picked) !== undefined"
      type="button"
      class="btn mt-2 border-dashed! border-bloom! text-bloom!"
      @click="put(picked, null)"
    >
      take “{{ words(picked) }}” back
    </button>
  </div>
</template>
