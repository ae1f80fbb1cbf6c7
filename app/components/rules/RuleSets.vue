<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { ruleSetRoutes } from '~/client/rule-sets'
import type { Reply } from '~/client/route'
import { count } from '~~/core/kit/phrases'
import { differing, nearestSet, ruleSets, setRulesOf, takeSet, type RuleSet } from '~~/core/rules/sets'

/** Rules to start from: which set these are, what differs from it, another to take, and these to keep as a set. */
type Kept = Reply<typeof ruleSetRoutes.list>[number]
const store = useQuiz()
const { state: own } = useAsyncState(() => ruleSetRoutes.list(), [])
const { problem, busy, act } = useAct()
const sets = computed<RuleSet[]>(() => [...own.value, ...ruleSets])
const chosen = ref<string | null>(null)
const set = computed(() => sets.value.find(({ id }) => id === chosen.value) ?? nearestSet(sets.value, store.quiz!))
const reading = useRulesReading()
const differs = computed(() => (reading.value ? differing(set.value, reading.value) : []))
const open = ref(false)
const keeping = ref(false)
const draft = reactive({ name: '', words: '', shared: false, usual: false })

function take(each: RuleSet) {
  const edit = takeSet(each, store.quiz!)
  chosen.value = each.id
  open.value = false
  if (!edit) return
  store.make(edit)
  announce(`The rules are those of “${each.name}” now. Who sits, when, and the password stay.`, store.undo)
}
async function keep() {
  const mine = own.value.find((each) => each.mine && each.name === draft.name.trim())
  const body = { ...draft, rules: setRulesOf(store.quiz!.rules) }
  const all = await act(
    () => (mine ? ruleSetRoutes.keep({ id: mine.id, body }) : ruleSetRoutes.make({ body })),
    `“${draft.name}” is kept.`,
  )
  if (!all) return
  own.value = all
  chosen.value = all.find((each) => each.mine && each.name === draft.name.trim())?.id ?? null
  keeping.value = false
}
async function drop(each: Kept) {
  const { id, name, words, rules, shared, usual } = each
  const back = () =>
    void ruleSetRoutes.make({ body: { name, words, rules, shared, usual } }).then((all) => (own.value = all))
  const all = await act(() => ruleSetRoutes.drop({ id }), `“${name}” is taken out. Quizzes stay as they are.`, back)
  if (all) own.value = all
}
</script>

<template>
  <section class="flex flex-wrap items-baseline gap-x-4 gap-y-1" aria-label="Set of rules">
    <details v-if="differs.length" class="min-w-0 grow">
      <summary>
        Nearest to <strong>{{ set.name }}</strong>, and {{ count(differs.length, 'rule differs', 'rules differ') }}
      </summary>
      <ul class="mt-1 border-l-2 border-rule pl-3 text-label">
        <li v-for="each in differs" :key="each.title" class="py-0.5">
          {{ each.changes.join('; ') }}
          <button class="link ml-2" :aria-label="`${each.title} as in ${set.name}`" @click="store.make(each.edit)">
            back
          </button>
        </li>
      </ul>
    </details>
    <p v-else class="grow">
      These are the rules of <strong>{{ set.name }}</strong>. {{ set.words }}
    </p>
    <button class="btn" @click="open = true">Start from a set…</button>
    <ModalDialog :open="open" title="Rules to start from" wide @close="open = false">
      <p class="text-soft">Who sits, when, and the password stay as they are. It can be undone.</p>
      <ul class="mt-3">
        <li v-for="each in sets" :key="each.id" class="flex flex-wrap items-baseline gap-3 border-b border-rule py-2">
          <span class="min-w-0 grow"
            ><span class="font-semibold break-words">{{ each.name }}</span>
            <span class="ml-2 text-soft">{{ each.words }}</span>
            <span v-if="'by' in each" class="block text-label text-soft"
              >{{ (each as Kept).mine ? 'yours' : `of ${(each as Kept).by}`
              }}{{ (each as Kept).mine && (each as Kept).shared ? ', shared in the school' : ''
              }}{{ (each as Kept).usual ? ', and your new quizzes begin with it' : '' }}</span
            ></span
          >
          <button
            v-if="'mine' in each && (each as Kept).mine"
            class="btn btn-quiet py-0"
            :aria-label="`Take out ${each.name}`"
            @click="drop(each as Kept)"
          >
            Take out
          </button>
          <button class="btn" :aria-label="`Take ${each.name}`" @click="take(each)">Take it</button>
        </li>
      </ul>
      <form v-if="keeping" class="mt-4 space-y-3" @submit.prevent="keep">
        <h3 class="text-lg">Keep the rules of this quiz as a set</h3>
        <LabelledField label="Name of the set"
          ><input v-model="draft.name" class="field" maxlength="80" required
        /></LabelledField>
        <LabelledField label="What it is for"
          ><input v-model="draft.words" class="field" maxlength="300"
        /></LabelledField>
        <TickBox v-model="draft.shared">others of the school may start from it</TickBox>
        <TickBox v-model="draft.usual">my new quizzes begin with it</TickBox>
        <div class="flex gap-2">
          <button class="btn btn-main" :disabled="busy">Keep</button
          ><button type="button" class="btn" @click="keeping = false">Leave it</button>
        </div>
      </form>
      <button v-else class="btn mt-4" @click="keeping = true">Keep these rules as a set…</button>
      <ProblemNote class="mt-3" :words="problem" />
    </ModalDialog>
  </section>
</template>
