<script setup lang="ts">
import { fromLocal, toLocal } from '~~/core/kit/local-time'
import { list, sentenceTime } from '~~/core/kit/words'
import type { Window } from '~~/core/quiz'

/** One window as a sentence: who may sit from when to when, due when. Times are the school's own. */
const { window: span, classes } = defineProps<{ window: Window; classes: { id: string; name: string }[] }>()
const emit = defineEmits<{ set: [values: Partial<Window>]; remove: [] }>()
const session = useSession()
const problem = ref('')
type Instants = 'opens' | 'closes' | 'due' | 'latestStart'

const when = (at: string | null, none: string) => (at ? sentenceTime(at, session.zone) : none)
const local = (at: string | null) => (at ? toLocal(at, session.zone) : '')
function set(name: Instants, event: Event) {
  const text = (event.target as HTMLInputElement).value
  if (!text) return
  problem.value = ''
  try {
    emit('set', { [name]: fromLocal(text, session.zone) })
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
function toggle(id: string) {
  const next = span.classes.includes(id) ? span.classes.filter((each) => each !== id) : [...span.classes, id]
  if (next.length) emit('set', { classes: next })
}
const names = computed(() =>
  list(span.classes.map((id) => classes.find((each) => each.id === id)?.name ?? 'a class that is gone')),
)
</script>

<template>
  <p class="leading-8">
    <SentenceValue :words="names" name="Classes"
      ><label v-for="each in classes" :key="each.id" class="flex items-center gap-2 py-0.5"
        ><input
          type="checkbox"
          class="accent-petrol"
          :checked="span.classes.includes(each.id)"
          @change="toggle(each.id)"
        />
        {{ each.name }}</label
      ></SentenceValue
    >
    may start from
    <SentenceValue :words="when(span.opens, '')" name="Opens"
      ><label class="label"
        >Opens<input
          class="field"
          type="datetime-local"
          :value="local(span.opens)"
          @change="set('opens', $event)" /></label
    ></SentenceValue>
    <SentenceValue :words="span.closes ? `until ${when(span.closes, '')}` : 'without an end'" name="Closes">
      <label class="label"
        >Closes<input class="field" type="datetime-local" :value="local(span.closes)" @change="set('closes', $event)"
      /></label>
      <button class="btn mt-2" @click="emit('set', { closes: null })">Without an end</button> </SentenceValue
    >,
    <SentenceValue :words="span.due ? `due ${when(span.due, '')}` : 'no due time'" name="Due time">
      <label class="label"
        >Due<input class="field" type="datetime-local" :value="local(span.due)" @change="set('due', $event)"
      /></label>
      <button class="btn mt-2" @click="emit('set', { due: null })">No due time</button> </SentenceValue
    ><template v-if="span.latestStart"
      >, starting at the latest
      <SentenceValue :words="when(span.latestStart, '')" name="Latest start"
        ><label class="label"
          >Latest start<input
            class="field"
            type="datetime-local"
            :value="local(span.latestStart)"
            @change="set('latestStart', $event)" /></label
        ><button class="btn mt-2" @click="emit('set', { latestStart: null })">No latest start</button></SentenceValue
      ></template
    >.
    <button
      v-if="!span.latestStart && span.closes"
      class="link font-sans text-[0.875rem]"
      @click="emit('set', { latestStart: span.closes })"
    >
      add a latest start
    </button>
    <button class="link ml-2 font-sans text-[0.875rem]" @click="emit('remove')">take out</button>
    <span v-if="problem" role="alert" class="note-stop block font-sans text-[0.9375rem]">{{ problem }}</span>
  </p>
</template>
