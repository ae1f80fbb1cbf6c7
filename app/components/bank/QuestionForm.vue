<script setup lang="ts">
import type { Question } from '~~/core/question'
import type { Objective } from '~~/server/domain/bank/describing/objectives'

/** All that is written of a question, with its preview beside it: on its page, and in a panel of Compose. */
const question = defineModel<Question>({ required: true })
const { recent = [] } = defineProps<{ objectives: Objective[]; recent?: string[] }>()
const shared = ref('')
const instances = shallowRef<{ values: Record<string, string>; stem: string; key: string }[]>([])
const set = (values: Partial<Question>) => {
  question.value = { ...question.value, ...values } as Question
}
const setBody = (values: object) => {
  question.value = { ...question.value, body: { ...question.value.body, ...values } } as Question
}
const number = (event: Event) => Number((event.target as HTMLInputElement).value)

const tagsIn = (text: string) => [
  ...new Set(
    text
      .split(',')
      .map((tag) => tag.trim())
      .filter(Boolean),
  ),
]
/** As they are typed; what is loaded or taken up instead is shown as it is. */
const tags = ref('')
watch(
  () => question.value.tags,
  (now) => {
    if (tagsIn(tags.value).join() !== now.join()) tags.value = now.join(', ')
  },
  { immediate: true },
)
watch(tags, (text) => {
  set({ tags: tagsIn(text) })
})
</script>

<template>
  <div>
    <div class="min-w-0 space-y-6">
      <StimulusPicker :chosen="question.stimulus" @update:chosen="set({ stimulus: $event })" @shown="shared = $event" />
      <div>
        <span class="label mb-1">{{ question.kind === 'gaps' ? 'What to do (may be left out)' : 'Question' }}</span>
        <RichText
          label="Question"
          :language="question.language"
          :model-value="question.stem"
          @update:model-value="set({ stem: $event })"
        />
      </div>
      <TickBox class="text-label" :model-value="question.keyless" @update:model-value="set({ keyless: $event })"
        >it has no right answer: for surveys, or asked beside a quiz for no points</TickBox
      >
      <BodyEditor :question="question" @update:body="setBody" />
      <VaryEditor :vary="question.vary" :instances="instances" @update:vary="set({ vary: $event })" />
      <fieldset class="grid gap-4 sm:grid-cols-3">
        <legend class="small-head col-span-full mb-2">About it</legend>
        <LabelledField label="Points"
          ><input
            class="field py-1"
            type="number"
            min="0"
            max="1000"
            step="0.5"
            :value="question.points"
            @input="set({ points: number($event) })"
        /></LabelledField>
        <LabelledField label="Expected time, seconds"
          ><input
            class="field py-1"
            type="number"
            min="5"
            max="7200"
            step="5"
            :value="question.seconds"
            @input="set({ seconds: number($event) })"
        /></LabelledField>
        <LabelledField label="Difficulty"
          ><select class="field py-1" :value="question.difficulty" @change="set({ difficulty: number($event) })">
            <option v-for="level in 5" :key="level" :value="level">
              {{ level }}{{ level === 1 ? ' easy' : level === 5 ? ' hard' : '' }}
            </option>
          </select></LabelledField
        >
        <div class="sm:col-span-3">
          <ObjectivePicker
            :chosen="question.objectives"
            :objectives="objectives"
            :recent="recent"
            @update:chosen="set({ objectives: $event })"
          />
        </div>
        <DescribeMore :question="question" @set="set" />
        <LabelledField label="Internal name"
          ><input
            class="field py-1"
            maxlength="160"
            :value="question.internalName"
            @input="set({ internalName: ($event.target as HTMLInputElement).value })"
        /></LabelledField>
        <LabelledField label="Tags, with commas"
          ><input v-model="tags" class="field py-1" maxlength="300"
        /></LabelledField>
        <LabelledField label="Source"
          ><input
            class="field py-1"
            maxlength="200"
            :value="question.source"
            @input="set({ source: ($event.target as HTMLInputElement).value })"
        /></LabelledField>
      </fieldset>
      <fieldset class="space-y-3">
        <legend class="small-head">Comments that students may see afterwards</legend>
        <div
          v-for="(words, name) in { right: 'When right', wrong: 'When not right', general: 'In any case' } as const"
          :key="name"
        >
          <span class="label">{{ words }}</span>
          <RichText
            slim
            :language="question.language"
            :label="`Comment: ${words}`"
            :model-value="question.comments[name]"
            @update:model-value="set({ comments: { ...question.comments, [name]: $event } })"
          />
        </div>
      </fieldset>
      <MoreAbout :question="question" @set="set" />
      <slot />
    </div>
    <QuestionPreview
      class="min-w-0 lg:sticky lg:top-4 lg:self-start"
      :question="question"
      :shared="shared"
      @instances="instances = $event"
    />
  </div>
</template>
