<script setup lang="ts">
import { sentenceTime } from '~~/core/kit/phrases'
import { needWords } from '~~/core/people'
import { languageName } from '~~/core/question/language-name'
import type { Register, RegisterStudent } from '~~/server/domain/classes/register'

/**
 * The names of a class in a column, and beside each what differs from the rest, what they can do now and what they have
 * reached. A grid in the roles of a table: rows that are out of sight are not laid out, of five hundred that is most.
 */
const { register, students, chosen, may } = defineProps<{
  register: Register
  students: readonly RegisterStudent[]
  chosen: ReadonlySet<string>
  may: boolean
}>()
const emit = defineEmits<{ choose: [students: string[]] }>()
const session = useSession()

const all = computed(() => students.length > 0 && students.every((student) => chosen.has(student.id)))
const toggleAll = () => emit('choose', all.value ? [] : students.map((student) => student.id))
function toggle(student: string) {
  const next = new Set(chosen)
  if (!next.delete(student)) next.add(student)
  emit('choose', [...next])
}

const groupsOf = computed(() => {
  const map = new Map<string, Register['groups']>()
  for (const group of register.groups)
    for (const member of group.members) map.set(member, [...(map.get(member) ?? []), group])
  return map
})
/** What differs from the rest, each with where it comes from. */
function differs(student: RegisterStudent): { words: string; why: string }[] {
  const own = needWords(student.accommodation, languageName)
  return [
    ...(own.length ? [{ words: own.join(', '), why: 'every quiz' }] : []),
    ...(groupsOf.value.get(student.id) ?? []).map(({ name, accommodation }) => {
      const given = needWords(accommodation, languageName)
      return given.length ? { words: given.join(', '), why: `group ${name}` } : { words: '', why: name }
    }),
    ...student.inQuizzes.map(({ words, title }) => ({ words, why: `“${title}”` })),
  ]
}
const titles = computed(() => new Map(register.quizzes.map(({ id, title }) => [id, title])))
const nowWords = ({ now }: RegisterStudent) =>
  now ? `${now.may === 'sitting' ? 'is working:' : 'start'} ${titles.value.get(now.quiz) ?? ''}` : ''
/** Quizzes that somebody has sat have a column. */
const columns = computed(() =>
  register.quizzes.filter(({ id }) => register.students.some((each) => each.marks[id])).slice(0, 5),
)
/** Quizzes have a column each; a grid knows no “none of them”. */
const layout = computed(() => ({
  gridTemplateColumns: [
    ...(may ? ['1.75rem'] : []),
    'minmax(9rem, 1.3fr)',
    'minmax(8rem, 1.2fr)',
    'minmax(10rem, 1.6fr)',
    ...columns.value.map(() => 'minmax(4.5rem, 6.5rem)'),
  ].join(' '),
}))
/** Joined later than the first of the class: that is worth saying. */
const first = computed(
  () =>
    register.students
      .map(({ since }) => since ?? '')
      .sort()[0]
      ?.slice(0, 10) ?? '',
)
function about(student: RegisterStudent): string {
  return [
    student.namesake ? (student.email ?? 'without an address') : '',
    student.also.length ? `also ${student.also.join(', ')}` : '',
    student.since && student.since.slice(0, 10) > first.value
      ? `joined ${sentenceTime(student.since, session.zone).split(',')[0]}`
      : '',
    student.waiting ? 'has not come in yet' : '',
  ]
    .filter(Boolean)
    .join(', ')
}
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Register">
    <div role="table" aria-label="Students" class="listed">
      <div role="row" class="listed-head grid gap-x-3 border-b border-ink py-1.5 text-label text-soft" :style="layout">
        <span v-if="may" role="columnheader"
          ><input type="checkbox" class="accent-bloom" aria-label="All" :checked="all" @change="toggleAll" /><span
            class="ml-2 sm:hidden"
            aria-hidden="true"
            >All</span
          ></span
        >
        <span role="columnheader">Student</span>
        <span role="columnheader">differs from the rest</span>
        <span role="columnheader">can do now</span>
        <span
          v-for="quiz in columns"
          :key="quiz.id"
          role="columnheader"
          class="truncate text-right"
          :title="quiz.title"
          >{{ quiz.title }}</span
        >
      </div>
      <div
        v-for="student in students"
        :key="student.id"
        v-memo="[student, chosen.has(student.id), columns, groupsOf, may]"
        role="row"
        class="grid gap-x-3 border-b border-rule py-1.5 [contain-intrinsic-height:2.25rem] [content-visibility:auto]"
        :class="chosen.has(student.id) && 'bg-bloom-tint'"
        :style="layout"
      >
        <span v-if="may" role="cell" class="max-sm:float-right"
          ><input
            type="checkbox"
            class="accent-bloom"
            :aria-label="`Choose ${student.name}`"
            :checked="chosen.has(student.id)"
            @change="toggle(student.id)"
        /></span>
        <span role="cell" class="min-w-0 break-words">
          <!-- A link of the page's own: five hundred that look ahead by themselves take their time. -->
          <a
            v-if="may"
            :href="`/students/${student.id}`"
            class="mr-1.5 font-semibold hover:underline"
            @click.exact.prevent="navigateTo(`/students/${student.id}`)"
            >{{ student.name }}</a><span v-else class="mr-1.5 font-semibold">{{ student.name }}</span
          ><span class="text-small text-soft">{{ about(student) }}</span>
        </span>
        <span role="cell" class="min-w-0" :data-empty="!differs(student).length">
          <span v-for="(each, i) in differs(student)" :key="i" class="block leading-snug">
            <span class="mr-1.5 text-petrol">{{ each.words }}</span><span class="text-small text-soft">{{
              each.why
            }}</span>
          </span>
        </span>
        <span role="cell" class="min-w-0" :class="!student.now && 'text-soft'" data-name="Now">{{
          nowWords(student) || 'nothing'
        }}</span>
        <span
          v-for="quiz in columns"
          :key="quiz.id"
          role="cell"
          class="text-right tabular-nums"
          :data-name="quiz.title"
        >
          <span v-if="student.marks[quiz.id]?.passed === false" class="text-red" title="not passed"
            ><span aria-hidden="true">▾ </span>{{ student.marks[quiz.id]!.percent
            }}<span class="sr-only"> not passed</span></span
          ><template v-else>{{ student.marks[quiz.id] ? (student.marks[quiz.id]!.percent ?? '…') : '–' }}</template>
        </span>
      </div>
    </div>
  </div>
</template>
