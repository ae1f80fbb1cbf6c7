<script setup lang="ts">
import { outsideRoutes } from '~/client/outside'
import { count, longDate, sentenceTime } from '~~/core/kit/phrases'
import type { OutsideBank, OutsideView } from '~~/server/domain/bank/outside/outside'

useHead({ title: 'Banks of others · Thistle' })
const session = useSession()
const view = shallowRef<OutsideView | null>(null)
const { problem, act } = useAct()
const busy = ref('')
function load() {
  return act(async () => {
    view.value = await outsideRoutes.view()
  })
}
onMounted(load)
async function guarded(bank: string, work: () => Promise<void>) {
  problem.value = ''
  busy.value = bank
  try {
    await work()
    await load()
  } catch (error) {
    problem.value = sentenceOf(error)
  } finally {
    busy.value = ''
  }
}
const ask = (each: OutsideBank) =>
  guarded(each.bank, async () => {
    await outsideRoutes.askFor({ bank: each.bank })
  })
const sync = (each: OutsideBank) =>
  guarded(each.bank, async () => {
    const { questions, corrected } = await outsideRoutes.sync({ bank: each.bank })
    announce(
      corrected
        ? `${count(corrected, 'question')} of ${questions} corrected.`
        : `All ${questions} questions are as they were.`,
    )
  })
const day = (at: string) => longDate(at, session.zone)
const when = (at: string) => sentenceTime(at, session.zone)
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-6">
    <p class="text-label"><NuxtLink class="link" to="/bank">Bank</NuxtLink></p>
    <h1 class="mt-1 text-3xl">Banks of others</h1>
    <p class="mt-2 text-soft">
      Publishers and associations keep banks and grant them to schools for a time. What is granted is found in the
      search of the bank, with where it is from; taking a question makes a copy of your own.
    </p>
    <ProblemNote class="mt-3" :words="problem" />
    <section v-if="view?.corrections.length" class="note-look mt-4" aria-label="Corrections">
      <h2 class="font-semibold">Corrected since you took them</h2>
      <ul>
        <li v-for="each in view.corrections" :key="each.copy">
          <NuxtLink class="link" :to="`/bank/${each.copy}`">{{ each.title }}</NuxtLink>
          <span class="text-small">· {{ each.bank }}</span>
        </li>
      </ul>
    </section>
    <p v-if="!view && !problem" class="mt-4 text-soft" role="status">Looking …</p>
    <ul v-if="view" class="mt-5 border-t border-ink">
      <li
        v-for="each in view.banks"
        :key="each.bank"
        class="flex flex-wrap items-start gap-x-6 gap-y-2 border-b border-rule py-4"
      >
        <div class="min-w-64 flex-1">
          <h2 class="text-lg font-semibold">{{ each.name }}</h2>
          <p class="text-label text-soft">
            {{ each.keeper }} · {{ count(each.questions, 'question') }} · for {{ each.days }} days
          </p>
          <p class="mt-1">{{ each.about }}</p>
          <p v-if="each.state === 'granted'" class="mt-1 text-label text-green">
            ✓ Granted until {{ day(each.until!)
            }}<template v-if="each.syncedAt"> · fetched {{ when(each.syncedAt) }}</template>
          </p>
          <p v-else-if="each.state === 'asked'" class="mt-1 text-label text-amber">
            Asked for; its keeper has not decided yet.
          </p>
          <p v-else-if="each.state === 'over'" class="mt-1 text-label text-amber">
            Granted until {{ day(each.until!) }}: that is over. Copies that you took stay yours.
          </p>
        </div>
        <div class="flex gap-2">
          <NuxtLink v-if="each.state === 'granted'" class="btn" to="/bank?from=outside">See its questions</NuxtLink>
          <button
            v-if="each.state === 'granted'"
            type="button"
            class="btn"
            :disabled="busy === each.bank"
            @click="sync(each)"
          >
            Look for corrections
          </button>
          <button
            v-else-if="each.state !== 'asked'"
            type="button"
            class="btn btn-main"
            :disabled="busy === each.bank"
            @click="ask(each)"
          >
            {{ each.state === 'over' ? 'Ask for it again' : 'Ask for it' }}
          </button>
          <button v-else type="button" class="btn" @click="load">Look again</button>
        </div>
      </li>
    </ul>
  </main>
</template>
