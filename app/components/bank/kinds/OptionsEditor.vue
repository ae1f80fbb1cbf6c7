<script setup lang="ts">
import { letter } from '~~/core/question/kinds/letter'

/** Options of choice, choices and true/false: text, what is right or what it earns, a comment for who chooses it. */
export interface EditedOption {
  id: string
  html: string
  comment: string
  fixed: boolean
  credit: number
  right?: boolean
}

const {
  options,
  mode,
  preset = false,
} = defineProps<{
  options: EditedOption[]
  mode: 'one' | 'several' | 'credits'
  preset?: boolean
  /** Unique on the page. */ group: string
}>()
const emit = defineEmits<{ 'update:options': [EditedOption[]] }>()

const set = (index: number, values: Partial<EditedOption>) =>
  emit(
    'update:options',
    options.map((option, i) => (i === index ? { ...option, ...values } : option)),
  )
function setRight(index: number, on: boolean) {
  if (mode === 'one')
    emit(
      'update:options',
      options.map((option, i) => ({ ...option, credit: i === index ? 1 : option.credit === 1 ? 0 : option.credit })),
    )
  else set(index, { right: on, credit: on ? 1 : -1 })
}
const list = useTemplateRef<HTMLElement>('list')
function move(from: number, to: number) {
  const next = [...options]
  next.splice(to, 0, ...next.splice(from, 1))
  emit('update:options', next)
}
useDragOrder(list, move)
function add() {
  const used = new Set(options.map((option) => option.id))
  const id = Array.from({ length: 60 }, (_, i) => `o${i + 1}`).find((each) => !used.has(each))!
  emit('update:options', [
    ...options,
    {
      id,
      html: '',
      comment: '',
      fixed: false,
      credit: mode === 'one' ? 0 : -1,
      ...(mode === 'one' ? {} : { right: false }),
    },
  ])
}
const isRight = (option: EditedOption) => (mode === 'one' ? option.credit === 1 : option.right === true)
</script>

<template>
  <fieldset>
    <legend class="small-head">Options</legend>
    <ol ref="list" class="mt-2 space-y-3">
      <li
        v-for="(option, index) in options"
        :key="option.id"
        class="grid grid-cols-[2.2rem_1fr_auto] items-start gap-2"
      >
        <label class="mt-1.5 flex flex-col items-center text-note">
          <input
            :type="mode === 'one' ? 'radio' : 'checkbox'"
            :name="`right-${group}`"
            class="size-4.5 accent-petrol"
            :checked="isRight(option)"
            :aria-label="`Option ${letter(index)} is right`"
            @change="setRight(index, ($event.target as HTMLInputElement).checked)"
          />
          <span
            class="font-semibold"
            :class="[isRight(option) ? 'text-green' : 'text-soft', !preset && 'drag-handle cursor-grab']"
            :title="preset ? undefined : 'Drag to move'"
            >{{ letter(index) }}</span
          >
        </label>
        <div class="space-y-1">
          <RichText
            slim
            :label="`Option ${letter(index)}`"
            :model-value="option.html"
            @update:model-value="set(index, { html: $event })"
          />
          <CommentField
            :label="`Comment for who chooses ${letter(index)}`"
            words="comment for who chooses it"
            :model-value="option.comment"
            @update:model-value="set(index, { comment: $event })"
          />
        </div>
        <div class="flex items-center gap-0.5 pt-1">
          <label
            v-if="mode === 'credits' || (mode === 'one' && !preset)"
            class="mr-1 flex items-center gap-1 text-note text-soft"
            >earns
            <input
              type="number"
              class="field w-18! px-1.5 py-0.5"
              :step="mode === 'one' ? 0.25 : 0.5"
              :min="mode === 'one' ? -1 : -10"
              :max="mode === 'one' ? 1 : 10"
              :value="option.credit"
              @change="set(index, { credit: Number(($event.target as HTMLInputElement).value) })"
            />
          </label>
          <OrderButtons
            v-if="!preset"
            :index="index"
            :count="options.length"
            :least="2"
            :name="letter(index)"
            @move="move"
            @remove="
              emit(
                'update:options',
                options.filter((_, i) => i !== index),
              )
            "
          />
        </div>
        <TickBox
          v-if="!preset"
          class="col-start-2 text-note text-soft"
          :model-value="option.fixed"
          @update:model-value="set(index, { fixed: !option.fixed })"
          >keeps its place when options are shuffled</TickBox
        >
      </li>
    </ol>
    <button v-if="!preset" type="button" class="btn mt-3" :disabled="options.length >= 30" @click="add">
      Add an option
    </button>
  </fieldset>
</template>
