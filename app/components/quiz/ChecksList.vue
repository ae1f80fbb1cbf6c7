<script setup lang="ts">
import type { Check } from '~~/core/quiz'
import type { Remedy } from '~~/core/quiz/check/check'
import { quizRoutes } from '~/client/quizzes'
import { count } from '~~/core/kit/phrases'

/**
 * What Thistle found, each with a way to mend it. A remedy is an edit like any other: it can be undone. What is only
 * worth a look can be set aside, with a reason.
 */
const { checks } = defineProps<{ checks: readonly Check[] }>()
const emit = defineEmits<{ gone: [] }>()
const store = useQuiz()
const pages = { finder: 'compose', windows: 'rules' } as const
const { problem, act } = useAct()
const setting = ref<string | null>(null)
const reason = ref('')
const shown = computed(() => checks.filter((check) => !check.aside))
const aside = computed(() => checks.filter((check) => check.aside))

/** To the place where a person chooses; the page puts the focus there. */
async function goTo({ goTo: place, objective }: Extract<Remedy, { goTo: string }>) {
  emit('gone')
  await navigateTo({ path: `/quizzes/${store.id!}/${pages[place]}`, query: objective ? { objective } : {} })
  // A dialog that closes gives the focus back where it came from; only then may it be taken.
  for (let tries = 0; tries < 60; tries++) {
    const target = document.querySelector('[role=dialog]') ? null : document.getElementById(place)
    if (target && tries > 2) {
      target.focus()
      target.scrollIntoView({ block: 'center' })
      return
    }
    await new Promise(requestAnimationFrame)
  }
}
async function setAside(code: string, why: string | null) {
  const done = await act(() => quizRoutes.aside({ id: store.id!, body: { code, reason: why } }))
  if (!done) return
  setting.value = null
  reason.value = ''
  await store.recheck()
}
</script>

<template>
  <div>
    <ProblemNote class="mb-2" :words="problem" />
    <ul class="space-y-2">
      <li
        v-for="check in shown"
        :key="check.code"
        :class="check.level === 'stop' || check.code === 'leak' ? 'note-stop' : 'note-look'"
      >
        <p class="font-semibold">
          {{ check.title }}<span v-if="check.level === 'stop'" class="font-normal"> · stops opening</span>
        </p>
        <p>{{ check.sentence }}</p>
        <p class="mt-1 flex flex-wrap items-baseline gap-x-3">
          <NuxtLink
            v-if="check.remedy && 'open' in check.remedy"
            class="min-h-6 font-semibold underline underline-offset-2"
            :to="`/bank/${check.remedy.open}`"
            >{{ check.remedy.label }}</NuxtLink
          >
          <button
            v-else-if="check.remedy && 'goTo' in check.remedy"
            class="min-h-6 font-semibold underline underline-offset-2"
            @click="goTo(check.remedy)"
          >
            {{ check.remedy.label }}
          </button>
          <button
            v-else-if="check.remedy"
            class="min-h-6 font-semibold underline underline-offset-2"
            @click="store.make(check.remedy.edit)"
          >
            {{ check.remedy.label }}
          </button>
          <button
            v-if="check.level === 'look'"
            class="min-h-6 underline underline-offset-2"
            :aria-expanded="setting === check.code"
            @click="setting = setting === check.code ? null : check.code"
          >
            set aside
          </button>
        </p>
        <form
          v-if="setting === check.code"
          class="mt-1.5 flex flex-wrap gap-1.5"
          @submit.prevent="setAside(check.code, reason)"
        >
          <input
            v-model="reason"
            class="field min-w-0 grow py-0.5"
            required
            maxlength="400"
            placeholder="why, in a few words"
            :aria-label="`Why “${check.title}” is set aside`"
          />
          <button class="btn py-0.5">Set aside</button>
        </form>
      </li>
      <li v-if="!shown.length" class="text-soft">Nothing found.</li>
    </ul>
    <details v-if="aside.length" class="mt-3">
      <summary class="text-soft">{{ count(aside.length, 'check') }} set aside</summary>
      <ul class="mt-1 space-y-2">
        <li v-for="check in aside" :key="check.code" class="border-b border-rule pb-1.5 text-small">
          <p class="font-semibold">{{ check.title }}</p>
          <p>{{ check.sentence }}</p>
          <p class="text-soft">“{{ check.aside?.reason }}” – {{ check.aside?.by }}</p>
          <button class="link min-h-6" @click="setAside(check.code, null)">take it up again</button>
        </li>
      </ul>
    </details>
  </div>
</template>
