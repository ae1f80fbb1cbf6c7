<script setup lang="ts">
import { quizRoutes } from '~/client/quizzes'
import { day, plus } from '~~/core/kit/time'
import { addTo, setAt, together, type Edit } from '~~/core/quiz/edits'
import { blankWindow } from '~~/core/rules/windows'

/** Everyone with the link: made with a window of its own, its address to be given on, and another address in its place. */
const store = useQuiz()
const { problem, busy, act } = useAct()
const made = ref(store.view!.link)
const rule = computed(() => store.quiz!.rules.link)
const address = computed(() => (made.value ? `${location.origin}/link/${made.value.token}` : ''))

async function make() {
  const link = await act(() => quizRoutes.makeLink({ id: store.view!.id }))
  if (!link) return
  made.value = link
  if (!store.view!.classes.some(({ id }) => id === link.audience)) await store.reload()
  const { windows } = store.quiz!.rules
  const now = serverTime()
  const opens = new Date(Math.ceil(Date.parse(now) / 300_000) * 300_000).toISOString()
  const window = blankWindow({ id: newRowId(), classes: [link.audience], opens, closes: plus(opens, 7 * day) })
  const edits: Edit[] = [
    setAt(store.quiz!, ['rules', 'link'], {
      audience: link.audience,
      by: 'fields',
      fields: [{ id: 'entry-1', name: 'Name', sort: 'name', required: true, unique: false }],
    }),
    addTo(['rules', 'windows'], windows.at(-1)?.id ?? null, [window]),
  ]
  store.make(together(edits)!)
}
async function renew() {
  const sure = await confirmed(
    'Give the link another address?',
    'The old address leads nowhere from then on. Whoever has come by it stays.',
    'Give another address',
  )
  if (!sure) return
  const link = await act(() => quizRoutes.makeLink({ id: store.view!.id }), 'The link has another address.')
  if (link) made.value = link
}
async function copy() {
  await act(() => navigator.clipboard.writeText(address.value), 'The address is copied.')
}
</script>

<template>
  <button v-if="!rule" class="btn font-sans" :disabled="busy" @click="make">Give it to everyone with a link</button>
  <div v-else-if="made" class="order-last mt-3 w-full border-l-4 border-rule pl-4 font-sans">
    <p class="small-head">Its address</p>
    <p class="break-all">{{ address }}</p>
    <div class="mt-1 flex flex-wrap gap-1">
      <button class="btn btn-quiet" @click="copy">Copy</button>
      <button class="btn btn-quiet" :disabled="busy" @click="renew">Another address</button>
    </div>
  </div>
  <ProblemNote class="order-last mt-2 font-sans" :words="problem" />
</template>
