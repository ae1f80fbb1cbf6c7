<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { sentenceTime } from '~~/core/kit/phrases'
import { minute, plus } from '~~/core/kit/time'
import type { Fill, Rehearsal } from '~/documents/rehearsal'

/**
 * The student's real page, in a frame that cannot be mistaken for the real thing; what it asks is answered by the
 * rehearsal. Below it: filling in, another paper, and what may happen to a student.
 */
const { play, name, turn } = defineProps<{
  play: Rehearsal
  name: string
  /** Grows with every change of the rehearsal. */
  turn: number
}>()
const session = useSession()
const frame = useTemplateRef<HTMLIFrameElement>('frame')
const { problem, busy, act } = useAct()
const begins = play.place || play.door
const id = useId()
const stages = (window.thistleStages ??= new Map())
stages.set(id, play)
onBeforeUnmount(() => stages.delete(id))

/** The address in the frame, looked at often: nothing tells when it changes. */
const path = ref('')
useIntervalFn(() => {
  path.value = frame.value?.contentWindow?.location.pathname ?? ''
}, 300)
const sitting = computed(() => /^\/sit\/([^/]+)/.exec(path.value)?.[1] ?? null)
const reviewed = computed(() => path.value.startsWith('/review/'))
const lost = computed(() => turn >= 0 && play.lost)

const fills: { words: string; how: Fill }[] = [
  { words: 'right', how: 'right' },
  { words: 'wrong', how: 'wrong' },
  { words: 'at random', how: 'random' },
  { words: 'as a weak student', how: { ability: -1.5 } },
  { words: 'as a usual one', how: { ability: 0 } },
  { words: 'as a strong one', how: { ability: 1.5 } },
]
const fill = (how: Fill) => act(() => play.fillIn(sitting.value!, how))
function another() {
  const next = play.draw + 1
  play.begin({ draw: next })
  play.toDoor()
}

/** How long a sitting has still to go is known to the page in the frame alone. */
async function clock() {
  const reply = await play.ask(`sittings/${sitting.value}/clock`, { query: { lease: 1 } })
  return (reply?.reply ?? {}) as { deadline?: string | null; hardStop?: string | null }
}
const runOut = () =>
  act(async () => {
    const { deadline } = await clock()
    if (!deadline) throw new Error('This paper has no clock that could run out.')
    play.moveTo(plus(deadline, -8000))
  })
const comeBackLate = () =>
  act(async () => {
    const { hardStop } = await clock()
    if (!hardStop) throw new Error('This paper never ends by itself.')
    play.moveTo(plus(hardStop, minute))
  })
const elsewhere = () =>
  act(async () => {
    await play.openElsewhere(sitting.value!)
    announce('Another device has taken the paper. Answer something here to see what this one is told.')
  })
defineExpose({ sitting, lost, runOut, comeBackLate, elsewhere, busy })
</script>

<template>
  <section :aria-label="`Rehearsal as ${name}`" class="border-3 border-double border-bloom bg-sheet">
    <p class="flex flex-wrap items-center justify-center gap-x-3 bg-bloom px-3 py-0.5 text-center text-note text-sheet">
      <span class="font-semibold">Rehearsal · nothing here counts</span>
      <span v-if="lost">no connection since {{ sentenceTime(play.at, session.zone) }}</span>
    </p>
    <p v-if="lost" class="note-look flex flex-wrap gap-x-4 px-3">
      <span>The student’s browser has no connection. Answer on: nothing is lost.</span>
      <button class="link" @click="play.moveTo(plus(play.at, 10 * minute), false)">10 minutes go by</button>
      <button class="link" @click="play.reconnect()">The connection is back</button>
    </p>
    <ProblemNote v-if="problem" class="m-2" :words="problem" />
    <iframe
      ref="frame"
      :name="id"
      :src="begins"
      :title="`What ${name} sees`"
      class="block h-[34rem] max-h-[75vh] w-full bg-ground"
    />
    <div class="flex flex-wrap items-center gap-2 border-t border-rule bg-ground px-3 py-2">
      <template v-if="sitting">
        <span class="text-label text-soft">Fill it in</span>
        <button
          v-for="each in fills"
          :key="each.words"
          class="btn py-1"
          :disabled="busy || lost"
          @click="fill(each.how)"
        >
          {{ each.words }}
        </button>
      </template>
      <span v-else class="text-label text-soft">{{
        reviewed ? 'Handed in: move the clock to see what is shown when.' : 'Start it, and the paper can be filled in.'
      }}</span>
      <button class="btn ml-auto py-1" :disabled="busy" @click="another">Another paper</button>
    </div>
  </section>
</template>
