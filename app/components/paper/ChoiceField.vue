<script setup lang="ts">
import { letter } from '~~/core/question/kinds/letter'
import type { SealedBody } from '~~/core/question/kinds/sealed'

/** Options to choose from: one, or several. */
const { body, chosen, readonly } = defineProps<{
  body: Extract<SealedBody, { asks: 'one' | 'several' }>
  chosen: string[]
  name: string
  labelledby: string
  readonly: boolean
  right: string[]
  struck: string[]
}>()
const emit = defineEmits<{ choose: [chosen: string[]] }>()

function choose(id: string) {
  if (readonly) return
  if (body.asks === 'one') emit('choose', [id])
  else emit('choose', chosen.includes(id) ? chosen.filter((each) => each !== id) : [...chosen, id])
}
const layouts = { list: 'space-y-2', columns: 'grid gap-2 sm:grid-cols-2', row: 'flex flex-wrap gap-2' }
</script>

<template>
  <div :role="body.asks === 'one' ? 'radiogroup' : 'group'" :aria-labelledby="labelledby">
    <p v-if="body.asks === 'several'" class="mb-2 text-label text-soft">
      {{ body.exactly ? `Choose ${body.exactly}.` : 'Choose all that apply.' }}
    </p>
    <div :class="layouts[body.layout]">
      <div v-for="(option, index) in body.options" :key="option.id" class="flex items-stretch gap-1">
        <label
          class="flex min-w-0 grow items-start gap-3 rounded border px-3.5 py-2.5"
          :class="[
            chosen.includes(option.id)
              ? 'border-petrol bg-petrol-tint shadow-[inset_4px_0_0_var(--petrol)]'
              : 'border-rule bg-sheet',
            readonly ? '' : 'cursor-pointer hover:border-petrol',
          ]"
        >
          <input
            class="peer sr-only"
            :type="body.asks === 'one' ? 'radio' : 'checkbox'"
            :name="name"
            :value="option.id"
            :checked="chosen.includes(option.id)"
            :disabled="readonly"
            @change="choose(option.id)"
          />
          <span
            class="mt-0.5 grid h-6 min-w-6 place-items-center rounded border px-1 text-small font-semibold peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-bloom"
            :class="chosen.includes(option.id) ? 'border-petrol bg-petrol text-petrol-ink' : 'border-rule'"
            >{{ letter(index) }}</span
          >
          <WrittenText
            :html="option.html"
            class="min-w-0 text-lg"
            :class="struck.includes(option.id) && 'text-soft line-through'"
          />
          <span
            v-if="right.includes(option.id)"
            class="ml-auto shrink-0 self-center text-small font-semibold text-green"
            >✓ right answer</span
          >
        </label>
        <slot name="beside" :option="option.id" :letter="letter(index)" />
      </div>
    </div>
  </div>
</template>
