<script setup lang="ts">
import { optionOf, type Control, type Fill, type Option, type Slot } from '~~/core/rules'

/** One of a few values; some have a number or a time in them that is typed beside the option. */
const { place } = defineProps<{ place: Slot }>()
const emit = defineEmits<{ set: [value: unknown]; close: [] }>()
const session = useSession()
const options = computed(() => (place.control as Extract<Control, { sort: 'choice' }>).options)
const chosen = computed(() => optionOf(options.value, place.value))
const group = useId()
/** What is filled in stays with the option while others are looked at. */
const filled = reactive(new Map<Option, unknown>())

const kept = (option: Option, fill: Fill): unknown =>
  filled.get(option) ??
  (option === chosen.value ? (place.value as Record<string, unknown>) : (option.value as Record<string, unknown>))[
    fill.key
  ]
/** What the field shows: percent where a share is kept. */
const shown = (option: Option, fill: Fill) => Number(kept(option, fill)) * (fill.per ?? 1)
const valueOf = (option: Option): unknown => {
  const { fill } = option
  if (!fill) return option.value
  // A time that nobody has named yet begins with now.
  const value = kept(option, fill) || (fill.sort === 'instant' ? serverTime() : kept(option, fill))
  return { ...(option.value as object), [fill.key]: value }
}
function choose(option: Option) {
  emit('set', valueOf(option))
  if (!option.fill) emit('close')
}
function fillIn(option: Option, value: unknown) {
  filled.set(option, value)
  emit('set', valueOf(option))
}
function typed(option: Option, fill: Fill, event: Event) {
  const value = (event.target as HTMLInputElement).valueAsNumber
  const isFit = value >= (fill.min ?? 0) && value <= (fill.max ?? Infinity)
  if (isFit) fillIn(option, value / (fill.per ?? 1))
}
</script>

<template>
  <fieldset>
    <legend class="sr-only">{{ place.name }}</legend>
    <div v-for="option in options" :key="JSON.stringify(option.value)" class="px-1 hover:bg-petrol-tint">
      <span class="flex flex-wrap items-center gap-x-2">
        <label class="flex cursor-pointer items-center gap-2 py-1"
          ><input
            type="radio"
            class="accent-petrol"
            :name="group"
            :checked="option === chosen"
            @change="choose(option)"
            @click="option === chosen && !option.fill && emit('close')"
          /><span v-if="option.fill?.sort !== 'number'">{{ option.label }}</span
          ><span v-else class="sr-only">{{ option.label }}</span></label
        >
        <template v-if="option.fill && (option.fill.sort === 'number' || option === chosen)">
          <TimeField
            v-if="option.fill.sort === 'instant'"
            :model-value="String(kept(option, option.fill) || serverTime())"
            :name="option.fill.label"
            :zone="session.zone"
            @update:model-value="fillIn(option, $event)"
          />
          <input
            v-else
            class="field w-22! py-0.5"
            type="number"
            :aria-label="option.fill.label"
            :min="option.fill.min ?? 0"
            :max="option.fill.max"
            :step="option.fill.step ?? 1"
            :value="shown(option, option.fill)"
            @change="typed(option, option.fill, $event)"
          />
          <span v-if="option.fill.sort === 'number'">{{ option.label }}</span><span
            v-else-if="option.fill.sort === 'minutes'"
            >minutes after that</span
          >
        </template>
      </span>
    </div>
  </fieldset>
</template>
