<script setup lang="ts">
import { importRoutes } from '~/client/imports'
import { useDebounceFn, useLocalStorage } from '@vueuse/core'
import type { Looked } from '~~/server/domain/imports/look'

useHead({ title: 'Write in plain text · Thistle' })
const sample = `# Tides

What is a falling tide called?

= ebb | ebb tide

---

Which tide has the greatest range?

- [x] Springs
  > At new and full moon.
- [ ] Neaps

---

How deep is it?

= 3.9 ± 0.1 m
`
/** What is typed stays in this browser until it is in the bank. */
const text = useLocalStorage('thistle:paste', sample)
const looked = shallowRef<Looked[]>([])
const problem = ref('')
const flow = useImport()
const { batch, busy } = flow
let looking = new AbortController()
/** Looks at what is there by now; an older look that is still under way is of no use, and is ended. */
async function look() {
  looking.abort()
  const mine = (looking = new AbortController())
  try {
    const found = await importRoutes.look({ body: { text: text.value }, signal: mine.signal })
    if (mine.signal.aborted) return
    looked.value = found
    problem.value = ''
  } catch (error) {
    if (mine.signal.aborted) return
    // What was understood of an older text is none of this one.
    looked.value = []
    problem.value = sentenceOf(error)
  }
}
onBeforeUnmount(() => {
  looking.abort()
})
watch(text, useDebounceFn(look, 250))
onMounted(look)
/** Markup that says more than its words: lists, tables, something bold. */
const isLaidOut = (html: string) => /<(?:li|table|strong|b|h[1-6])[\s>]/i.test(html)
const pasted = ref<string[]>([])
/** What comes out of a word processor is turned into plain text where it was pasted. */
async function paste(event: ClipboardEvent) {
  const html = event.clipboardData?.getData('text/html') ?? ''
  if (!isLaidOut(html)) return
  event.preventDefault()
  const field = event.target as HTMLTextAreaElement
  pasted.value = []
  let said = event.clipboardData!.getData('text/plain')
  try {
    const { text: found, problems } = await importRoutes.pasted({ body: { html } })
    pasted.value = problems
    if (found) said = `${found.trim()}\n`
  } catch (error) {
    // It stays there until something else is pasted: a look at the text says nothing of it.
    pasted.value = [`It stands as plain words. ${sentenceOf(error)}`]
  }
  // Who typed on meanwhile is at another place by now.
  const [from, to] = [field.selectionStart, field.selectionEnd]
  text.value = text.value.slice(0, from) + said + text.value.slice(to)
}
const bring = () => flow.stage(new Blob([text.value]), 'typed.md')
const readable = computed(() => looked.value.filter((each) => each.question).length)
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-7xl px-5 py-6">
    <p class="text-label"><NuxtLink class="link" to="/bank">Bank</NuxtLink></p>
    <div class="mt-1 flex flex-wrap items-center gap-3">
      <h1 class="text-3xl">Write in plain text</h1>
      <button class="btn btn-main ml-auto" :disabled="!readable || busy" @click="bring">
        Bring in {{ readable }} {{ readable === 1 ? 'question' : 'questions' }} …
      </button>
    </div>
    <ProblemNote class="mt-3" :words="problem" />
    <ImportList v-if="batch" :flow="flow" />
    <div class="mt-4 grid gap-8 lg:grid-cols-2">
      <div>
        <LabelledField label="Questions in Markdown">
          <textarea
            v-model="text"
            class="field min-h-[28rem] font-mono text-label"
            spellcheck="true"
            maxlength="500000"
            @paste="paste"
          />
        </LabelledField>
        <div v-if="pasted.length" class="note-look mt-2" role="status">
          <p>Of what was pasted, this could not be understood:</p>
          <ul class="list-disc pl-5">
            <li v-for="words in pasted" :key="words">{{ words }}</li>
          </ul>
        </div>
        <p class="mt-2 text-small text-soft">
          You can paste from a word processor too. Put the right option in bold, tick it, or add a line such as “Answer:
          B”.
        </p>
        <dl class="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 text-small text-soft">
          <dt><code>---</code></dt>
          <dd>parts two questions</dd>
          <dt><code>- [x] ebb</code></dt>
          <dd>an option; ticked ones are right; a quote under it is its comment</dd>
          <dt><code>Answer: B</code></dt>
          <dd>which of the options above is right, when none is ticked</dd>
          <dt><code>= in this order</code></dt>
          <dd>after a numbered list: an ordering</dd>
          <dt><code>= in these pairs</code></dt>
          <dd>after a table of two columns: a matching</dd>
          <dt><code>= 3.9 ± 0.1 m</code></dt>
          <dd>a number; <code>= 5 to 7</code> and <code>= &gt; 5</code> are ranges</dd>
          <dt><code>= ebb | ebb tide</code></dt>
          <dd>a text with its accepted answers</dd>
          <dt><code># Tides</code></dt>
          <dd>the folder, deeper with more #</dd>
          <dt><code>$\frac{3}{12}$</code></dt>
          <dd>maths</dd>
        </dl>
      </div>
      <section aria-label="As questions">
        <h2 class="small-head border-b border-rule pb-1">As questions</h2>
        <article v-for="(each, index) in looked" :key="index" class="border-b border-rule py-4">
          <p class="text-note text-soft">
            {{ each.question?.kind ?? 'not understood' }} · {{ each.place
            }}<template v-if="each.folder.length"> · {{ each.folder.join(' / ') }}</template>
          </p>
          <template v-if="each.question">
            <WrittenText :id="`looked-${index}`" :html="each.question.stem" class="mb-2 mt-1 text-lg" />
            <AnswerField
              :body="each.question.body"
              :name="`looked-${index}`"
              :labelledby="`looked-${index}`"
              :model-value="null"
              readonly
              :right="(each.question.solution as { chosen?: string[] } | null)?.chosen ?? []"
            />
            <p class="mt-2 text-label text-green"><span class="text-soft">Key</span> {{ each.question.key }}</p>
          </template>
          <p v-if="each.problem" class="note-stop mt-2">{{ each.problem }}</p>
          <p v-for="note in each.notes" :key="note" class="note-look mt-2">{{ note }}</p>
        </article>
        <p v-if="!looked.length" class="py-4 text-soft">Nothing yet.</p>
      </section>
    </div>
  </main>
</template>
