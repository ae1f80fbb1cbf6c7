<script setup lang="ts">
import type { Accommodation } from '~~/core/quiz'
import { languageName } from '~~/core/question/language-name'

/** What somebody, several or a group need: it goes for every quiz. A reason where there is one person who has it. */
const { open, who, need, reason } = defineProps<{
  open: boolean
  who: string
  need: Accommodation
  /** Null where none is asked. */
  reason: string | null
  problem: string
  busy: boolean
}>()
const emit = defineEmits<{ close: []; keep: [Accommodation, string | undefined] }>()
const draft = reactive({ ...need })
const laterHours = computed({
  get: () => draft.laterMinutes / 60,
  set: (hours: number) => {
    draft.laterMinutes = Math.round(hours * 60)
  },
})
const why = ref(reason ?? '')
watch(
  () => open,
  () => {
    Object.assign(draft, need)
    why.value = reason ?? ''
  },
)
const languages = ['ar', 'de', 'el', 'en', 'es', 'fr', 'hi', 'it', 'ja', 'nl', 'pl', 'pt', 'ru', 'sv', 'tr', 'uk', 'zh']
  .map((code) => ({ code, name: languageName(code) }))
  .sort((a, b) => a.name.localeCompare(b.name))
</script>

<template>
  <ModalDialog
    :open="open"
    :title="`What ${who} need${who.includes(' and ') || /\d/.test(who) ? '' : 's'}`"
    @close="emit('close')"
  >
    <form class="space-y-4" @submit.prevent="emit('keep', { ...draft }, reason === null ? undefined : why)">
      <p class="text-soft">
        Every quiz follows it, and a paper under way gets it at once. Where several things are given, the most generous
        counts.
      </p>
      <div class="flex flex-wrap gap-4">
        <LabelledField label="Time factor"
          ><input v-model.number="draft.factor" class="field w-28!" type="number" min="1" max="5" step="0.05" required
        /></LabelledField>
        <LabelledField label="Extra minutes"
          ><input
            v-model.number="draft.extraMinutes"
            class="field w-28!"
            type="number"
            min="0"
            max="600"
            step="0.5"
            required
        /></LabelledField>
        <LabelledField label="Breaks that stop the clock, minutes in all"
          ><input
            v-model.number="draft.breakMinutes"
            class="field w-28!"
            type="number"
            min="0"
            max="600"
            step="0.5"
            required
        /></LabelledField>
        <LabelledField label="More attempts"
          ><input
            v-model.number="draft.moreAttempts"
            class="field w-28!"
            type="number"
            min="0"
            max="20"
            step="1"
            required
        /></LabelledField>
        <LabelledField label="Windows and due times end later by, hours"
          ><input v-model.number="laterHours" class="field w-28!" type="number" min="0" max="1440" step="0.5" required
        /></LabelledField>
        <LabelledField label="Papers begin in"
          ><select v-model="draft.language" class="field">
            <option :value="null">as each quiz says</option>
            <option v-for="each in languages" :key="each.code" :value="each.code">{{ each.name }}</option>
          </select></LabelledField
        >
      </div>
      <TickBox v-model="draft.stretchWindow">the extra time also goes past the end of a window</TickBox>
      <TickBox v-model="draft.largerType">larger type on papers</TickBox>
      <LabelledField v-if="reason !== null" label="Why: seen by those who teach a class of theirs, and by nobody else">
        <textarea v-model="why" class="field" rows="2" maxlength="1000" />
      </LabelledField>
      <ProblemNote :words="problem" />
      <div class="flex justify-end gap-2">
        <button type="button" class="btn" @click="emit('close')">Leave it</button
        ><button class="btn btn-main" :disabled="busy">Keep</button>
      </div>
    </form>
  </ModalDialog>
</template>
