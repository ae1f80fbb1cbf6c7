<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { kindsOf, type Kind } from '~~/core/day-line/kinds'
import { spansOf } from '~~/core/day-line/day-line'
import { studentDays } from '~~/core/day-line/student-days'
import { minute, plus, type Instant } from '~~/core/kit/time'
import { endsOf } from '~~/core/release'
import { assignedTo, stillToCome, studentOfClass } from '~~/core/schedule/assigned'
import { lastStartOf } from '~~/core/schedule/clock'
import { scheduleFor } from '~~/core/schedule/schedule'
import { quizRoutes } from '~/client/quizzes'
import { browserMemory, realTimers } from '~/documents/device'
import { Rehearsal } from '~/documents/rehearsal'
import type RehearsalFrame from '~/components/rehearse/RehearsalFrame.vue'

/** The quiz as any student sees it at any instant, before anyone does. */
const store = useQuiz()
const session = useSession()
const now = useNow(1000)
const quiz = computed(() => store.quiz!)
const id = store.id!

const link = computed(() => quiz.value.rules.link?.audience ?? null)
const classes = computed(() => {
  const meant = new Set(quiz.value.rules.windows.flatMap((window) => window.classes))
  return (store.view?.classes ?? []).filter((each) => meant.has(each.id))
})
const assigned = computed(() =>
  assignedTo([...(store.view?.students ?? []), ...stillToCome(quiz.value.rules)], quiz.value.rules),
)
const kinds = computed(() => kindsOf(assigned.value, classes.value, link.value))
const ends = computed(() => endsOf(assigned.value))

/** Who is there at first, and when: the first kind, as the quiz opens; or now, where it is open. */
const first = computed<Kind['who'] | null>(
  () => kinds.value[0]?.who ?? (store.view?.students[0] ? { student: store.view.students[0].id } : null),
)
function scheduleOf(who: Kind['who']) {
  if ('inClass' in who) return scheduleFor(quiz.value.rules, studentOfClass(who.inClass))
  const student = store.view!.students.find((each) => each.id === who.student)
  return scheduleFor(quiz.value.rules, student ?? { ...studentOfClass(''), id: who.student })
}
function beginsAt(who: Kind['who']): Instant {
  const { windows } = scheduleOf(who)
  const open = windows.find(({ opens, closes }) => opens <= now.value && (closes === null || closes > now.value))
  if (open || !windows.length) return now.value
  return (windows.find(({ opens }) => opens > now.value) ?? windows.at(-1)!).opens
}

const isDraft = computed(() => store.view?.state === 'draft')
const makePlay = (name: string, who: Kind['who']) => {
  const play: Rehearsal = new Rehearsal(
    who,
    beginsAt(who),
    (asked) => quizRoutes.rehearse({ id, body: asked }),
    browserMemory(() => sessionStorage),
    `thistle:rehearsal:${id}:${name}`,
    realTimers,
    () => {
      turn.value++
    },
    (item) => void openEditor(play, item),
  )
  play.door = `/my/${id}`
  play.content = isDraft.value || store.view?.ahead ? 'written' : 'open'
  return play
}
const turn = ref(0)
const play = shallowRef<Rehearsal | null>(null)
const beside = shallowRef<Rehearsal | null>(null)
if (first.value) {
  play.value = makePlay('one', first.value)
  if (play.value.takeUp() && isDraft.value) play.value.content = 'written'
}
const frame = useTemplateRef<InstanceType<typeof RehearsalFrame>>('frame')

/** What time it is in it, drawn anew as it goes on. */
const tick = ref(0)
useIntervalFn(() => tick.value++, 5000)
const at = computed(() => (turn.value >= 0 && tick.value >= 0 && play.value ? play.value.at : now.value))
const who = computed(() => (turn.value >= 0 && play.value ? play.value.who : null))
const schedule = computed(() => (who.value ? scheduleOf(who.value) : null))
function nameOf(of: Kind['who']): string {
  if ('student' in of) return store.view?.students.find((each) => each.id === of.student)?.name ?? 'A student'
  return of.inClass === link.value ? 'Somebody with the link' : 'Somebody made up'
}
const kindOf = (of: Kind['who']) =>
  kinds.value.find(({ students, who: its }) =>
    'student' in of ? students.some((each) => each.id === of.student) : 'inClass' in its && its.inClass === of.inClass,
  )
const classesOf = (of: Kind['who']) =>
  'student' in of ? (store.view?.students.find((each) => each.id === of.student)?.classes ?? []) : [of.inClass]
const days = computed(() =>
  who.value && schedule.value
    ? studentDays(quiz.value.rules, { schedule: schedule.value, classes: classesOf(who.value) }, ends.value)
    : null,
)
const spans = computed(() => (schedule.value ? spansOf(schedule.value) : []))

function choose(next: Kind['who'], of = play.value!) {
  of.begin({ who: next })
  of.moveTo(beginsAt(next), false)
  of.toDoor()
}
function move(to: Instant) {
  // How somebody stood before is not known any more: as they stand, they are looked at from now on.
  const tooEarly = fresh.value === false && to < now.value
  if (tooEarly) announce('With what they have sat, they are looked at from now on.')
  const at = tooEarly ? now.value : to
  play.value!.moveTo(at)
  beside.value?.moveTo(at)
}
const stops = computed(() => [...new Set((days.value?.moments ?? []).flatMap((each) => each.at ?? []))].sort())
const step = (by: 1 | -1) => {
  const to =
    by === 1
      ? stops.value.find((stop) => stop > at.value)
      : stops.value.findLast((stop) => stop < plus(at.value, -minute))
  if (to) move(to)
}
function lastMoment() {
  const last = schedule.value?.windows
    .map((window) => lastStartOf(schedule.value!, window))
    .find((each) => each !== null)
  if (!last) return announce('There is no last moment to start.')
  play.value!.begin({})
  play.value!.moveTo(plus(last, -minute), false)
  play.value!.toDoor()
}
function putBeside(of: Kind['who'] | null) {
  beside.value = of && makePlay('two', of)
  if (beside.value) beside.value.moveTo(at.value, false)
}
const others = computed(() =>
  kinds.value
    .filter((kind) => who.value && kindOf(who.value)?.key !== kind.key)
    .map((kind) => ({ value: kind.key, label: kind.name })),
)
function setContent(content: 'written' | 'open') {
  play.value!.renew(content)
  play.value!.page?.turn()
}
function setFresh(fresh: boolean) {
  play.value!.begin({ fresh })
  if (!fresh && at.value < now.value) play.value!.moveTo(now.value, false)
  play.value!.toDoor()
}
const content = computed(() => (turn.value >= 0 ? play.value?.content : 'written'))
const fresh = computed(() => (turn.value >= 0 ? play.value?.fresh : true))

async function openEditor(of: Rehearsal, item: string) {
  const attempt = of.page?.paper()
  if (!attempt) return
  const question = await of.questionAt(attempt, item)
  of.keepPlace()
  if (question) await navigateTo({ path: `/bank/${question}`, query: { back: `/quizzes/${id}/rehearse` } })
}
</script>

<template>
  <div v-if="!play" class="p-5">
    <EmptyNote title="Nobody sits it yet">
      Give it to a class in <NuxtLink class="link" :to="`/quizzes/${id}/rules`">Rules</NuxtLink>; then it can be
      rehearsed as any of its students.
    </EmptyNote>
  </div>
  <div v-else class="space-y-3">
    <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1 print:hidden">
      <p class="font-serif text-xl">
        As <strong class="text-petrol">{{ nameOf(who!) }}</strong><span class="text-lg">{{
          kindOf(who!) ? `, ${kindOf(who!)!.name}` : ''
        }}</span
        >, at
      </p>
      <span class="inline-block w-56">
        <TimeField :model-value="at" :zone="session.zone" name="Time of the rehearsal" @update:model-value="move" />
      </span>
      <div class="ml-auto flex flex-wrap items-center gap-x-3 gap-y-1 text-label">
        <button class="btn py-1" @click="step(-1)">← change before</button>
        <button class="btn py-1" @click="step(1)">next change →</button>
        <button class="btn py-1" @click="move(now)">now</button>
        <button v-if="beside" class="btn py-1" @click="putBeside(null)">One student again</button>
        <PickMenu
          v-else
          words="beside another"
          :options="others"
          @pick="putBeside(kinds.find((kind) => kind.key === $event)!.who)"
        />
      </div>
    </div>
    <RehearsalLine
      v-if="days"
      class="print:hidden"
      :spans="spans"
      :moments="days.moments"
      :here="at"
      :now="now"
      @move="move"
    />
    <div class="grid gap-x-6 gap-y-5 print:block" :class="beside ? 'lg:grid-cols-2' : 'lg:grid-cols-[13rem_1fr_17rem]'">
      <aside v-if="!beside" class="space-y-6 print:hidden">
        <WhoRehearses :kinds="kinds" :students="store.view?.students ?? []" :chosen="who!" @choose="choose($event)" />
        <section>
          <h2 class="border-b border-ink pb-1.5 text-xl">What if</h2>
          <ul class="what-if">
            <li>
              <button :disabled="!frame?.sitting || frame.lost" @click="play.lose()">the connection goes</button>
            </li>
            <li><button @click="lastMoment">they start at the last moment</button></li>
            <li>
              <button :disabled="!frame?.sitting" @click="frame?.runOut()">time runs out</button>
            </li>
            <li>
              <button :disabled="!frame?.sitting" @click="frame?.comeBackLate()">they come back too late</button>
            </li>
            <li>
              <button :disabled="!frame?.sitting" @click="frame?.elsewhere()">a second device</button>
            </li>
            <li>
              <NuxtLink class="block px-1.5 py-1.5 font-semibold text-petrol" :to="`/quizzes/${id}/trial`"
                >1,000 trial sittings…</NuxtLink
              >
            </li>
          </ul>
        </section>
        <section v-if="!isDraft" class="space-y-1.5 text-label">
          <TickBox :model-value="fresh === false" @update:model-value="setFresh(!$event)"
            >with what they have sat already</TickBox
          >
          <TickBox
            v-if="store.view?.ahead"
            :model-value="content === 'written'"
            @update:model-value="setContent($event ? 'written' : 'open')"
            >with changes that students do not have yet</TickBox
          >
        </section>
      </aside>
      <div class="min-w-0 max-lg:order-first print:hidden">
        <p v-if="beside" class="mb-1 font-serif text-lg">{{ nameOf(who!) }}, {{ kindOf(who!)?.name }}</p>
        <RehearsalFrame ref="frame" :play="play" :name="nameOf(who!)" :turn="turn" />
      </div>
      <div v-if="beside" class="min-w-0 print:hidden">
        <p class="mb-1 font-serif text-lg">{{ nameOf(beside.who) }}, {{ kindOf(beside.who)?.name }}</p>
        <RehearsalFrame :play="beside" :name="nameOf(beside.who)" :turn="turn" />
      </div>
      <DaysList
        v-if="days && !beside"
        :name="nameOf(who!)"
        :days="days"
        :here="at"
        :quiz="id"
        :student="!isDraft && 'student' in who! ? who.student : null"
        @go="move"
      />
    </div>
  </div>
</template>

<style scoped>
.what-if li {
  border-bottom: 1px solid var(--rule);
}
.what-if button {
  width: 100%;
  padding: 0.375rem;
  text-align: left;
}
.what-if button:hover:enabled {
  background: var(--petrol-tint);
}
.what-if button:disabled {
  color: var(--soft);
}
</style>
