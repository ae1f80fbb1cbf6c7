<script setup lang="ts">
import { exact, fixed } from '~~/core/kit/exact'
import { percent } from '~~/core/kit/phrases'
import type { Response } from '~/components/paper/response'
import { questionRoutes } from '~/client/questions'
import type { Preview } from '~~/server/domain/bank/questions/preview'
import type { QuestionDetail } from '~~/server/domain/bank/questions/questions'
import type { QuestionRecord } from '~~/server/domain/bank/questions/track-record'

/** The whole question with key, source and record, opened within a list. */
const { id } = defineProps<{ id: string }>()
/** In a quiz it is changed without leaving the quiz. */
const change = inject(changeQuestion, null)
const preview = shallowRef<Preview | null>(null)
const detail = shallowRef<QuestionDetail | null>(null)
const record = shallowRef<QuestionRecord | null>(null)
/** One answers it as a student would, and sees what that earns. */
const trying = ref(false)
const { problem, act } = useAct()
onMounted(async () => {
  await act(async () => {
    const [found, done] = await Promise.all([questionRoutes.get({ id }), questionRoutes.record({ id })])
    detail.value = found
    record.value = done
    preview.value = await questionRoutes.preview({ body: { question: found.question } })
  })
})
</script>

<template>
  <div class="border-l-4 border-petrol-mid pl-4 pt-1">
    <ProblemNote v-if="problem" :words="problem" />
    <p v-else-if="!preview || !detail" class="text-soft" role="status">Loading …</p>
    <template v-else>
      <QuestionPreview v-if="trying" :question="detail.question" />
      <WrittenText
        v-else-if="preview.stem"
        :id="`whole-${id}`"
        :html="preview.stem"
        :language="detail.question.language"
        class="text-lg"
      />
      <AnswerField
        v-if="!trying"
        class="mt-3"
        :body="preview.body"
        :name="`whole-${id}`"
        :labelledby="`whole-${id}`"
        :model-value="null"
        readonly
        :right="(preview.solution as Response | null)?.chosen ?? []"
      />
      <dl class="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-label">
        <dt class="text-soft">Key</dt>
        <dd class="text-green">{{ preview.key || 'not set' }}</dd>
        <template v-if="detail.question.source"
          ><dt class="text-soft">Source</dt>
          <dd>{{ detail.question.source }}</dd></template
        >
        <template v-if="record?.facility !== null && record"
          ><dt class="text-soft">Record</dt>
          <dd>
            {{ percent(record.facility) }} right<template v-if="record.discrimination !== null"
              >, discrimination {{ fixed(exact(record.discrimination), 2) }}</template
            >, of {{ record.n }} answers
          </dd></template
        >
        <template v-if="record?.quizzes.length"
          ><dt class="text-soft">In quizzes</dt>
          <dd>{{ record.quizzes.map((quiz) => quiz.title ?? 'a colleague’s quiz').join(', ') }}</dd></template
        >
      </dl>
      <p class="mt-3 flex flex-wrap gap-2">
        <button class="btn" :aria-pressed="trying" @click="trying = !trying">
          {{ trying ? 'Read it again' : 'Try it' }}
        </button>
        <button v-if="change" class="btn" @click="change(id)">Change it here</button>
        <NuxtLink class="btn" :class="change && 'btn-quiet'" :to="`/bank/${id}`">{{
          change ? 'Open it in the bank' : 'Open to change'
        }}</NuxtLink>
      </p>
    </template>
  </div>
</template>
