<script setup lang="ts">
import { fromLocal, toLocal } from '~~/core/kit/local-time'
import { duration } from '~~/core/kit/words'
import { plus } from '~~/core/kit/time'
import type { Content, Pages, Rules, Window } from '~~/core/quiz'

/** Who sits when, how long, and how the paper is shown. A sentence that does not apply is not there. */
const store = useQuiz()
const session = useSession()
const rules = computed(() => store.quiz!.rules)
const content = computed(() => store.quiz!.content)
const classes = computed(() => store.view!.classes)
const setRules = (values: Partial<Rules>) => store.make({ do: 'setRules', values })
const setContent = (values: Partial<Omit<Content, 'sections'>>) => store.make({ do: 'setContent', values })
const setWindow = (id: string, values: Partial<Window>) =>
  setRules({ windows: rules.value.windows.map((window) => (window.id === id ? { ...window, ...values } : window)) })
const removeWindow = (id: string) => setRules({ windows: rules.value.windows.filter((window) => window.id !== id) })

/** A new window: tomorrow evening, for the first class that has none. */
function addWindow() {
  const taken = new Set(rules.value.windows.flatMap((window) => window.classes))
  const free = classes.value.find((each) => !taken.has(each.id)) ?? classes.value[0]
  if (!free) {
    store.problem = 'There is no class yet to give a window to.'
    return
  }
  const tomorrow = toLocal(plus(serverTime(), 24 * 3_600_000), session.zone).slice(0, 10)
  setRules({
    windows: [
      ...rules.value.windows,
      {
        id: newRowId(),
        classes: [free.id],
        opens: fromLocal(`${tomorrow}T19:00`, session.zone),
        closes: fromLocal(`${tomorrow}T21:00`, session.zone),
        due: null,
        latestStart: null,
      },
    ],
  })
}
const pageWords = computed(
  () =>
    ({
      all: 'all together',
      section: 'by section',
      count: `${content.value.pages.by === 'count' ? content.value.pages.count : 1} to a page`,
    })[content.value.pages.by],
)
const hasClosing = computed(() => rules.value.windows.some((window) => window.closes))
const password = ref('')
function turnPages(pages: Pages, close: () => void) {
  setContent({ pages })
  close()
}
function askFor(words: string | null, close: () => void) {
  setRules({ password: words })
  close()
}
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1.5 text-xl">Sitting</h2>
    <div class="mt-2 space-y-1.5 font-serif text-base leading-8">
      <WindowSentence
        v-for="window in rules.windows"
        :key="window.id"
        :window="window"
        :classes="classes"
        @set="setWindow(window.id, $event)"
        @remove="removeWindow(window.id)"
      />
      <p v-if="!rules.windows.length" class="text-soft">Nobody can sit it yet.</p>
      <button id="windows" class="btn font-sans" @click="addWindow">Add a window</button>
      <p>
        Each student has
        <SentenceNumber
          :model-value="rules.limit"
          name="Time limit"
          :words="rules.limit === null ? 'no time limit' : duration(rules.limit)"
          unit="minutes"
          :min="1"
          :max="10080"
          :step="1"
          none="No time limit"
          @update:model-value="setRules({ limit: $event })"
        /><template v-if="rules.limit !== null"> from when they start</template>, and
        <SentenceNumber
          :model-value="rules.grace"
          name="Grace"
          :words="rules.grace ? duration(rules.grace) : 'no grace'"
          unit="minutes"
          :max="60"
          :step="0.5"
          @update:model-value="setRules({ grace: $event ?? 0 })"
        /><template v-if="rules.grace"> of grace</template>.
      </p>
      <p>
        When time is up,
        <SentenceChoice
          :model-value="rules.atDeadline"
          name="At the deadline"
          :options="[
            { value: 'handIn', label: 'hand in what is there' },
            { value: 'finish', label: 'let them finish, flagged as late' },
            { value: 'unsent', label: 'leave it unsent, counted as zero' },
          ]"
          @update:model-value="setRules({ atDeadline: $event })"
        /><template v-if="rules.atDeadline === 'finish'"
          >, at most
          <SentenceNumber
            :model-value="rules.overrun"
            name="Greatest overrun"
            :words="rules.overrun === null ? 'until the window ends' : duration(rules.overrun)"
            unit="minutes"
            :max="10080"
            none="Until the window ends"
            @update:model-value="setRules({ overrun: $event })"
          /><template v-if="rules.overrun !== null"> over</template></template
        >.
      </p>
      <p v-if="hasClosing && rules.limit !== null">
        If the window closes on someone still working,
        <SentenceChoice
          :model-value="rules.atClosing"
          name="At the closing of the window"
          :options="[
            { value: 'clock', label: 'let their clock run out' },
            { value: 'window', label: 'end the paper with the window' },
          ]"
          @update:model-value="setRules({ atClosing: $event })"
        />.
      </p>
      <p>
        They answer
        <SentenceChoice
          :model-value="content.movement"
          name="Movement"
          :options="[
            { value: 'free', label: 'in any order' },
            { value: 'forward', label: 'forward only, page by page' },
          ]"
          @update:model-value="setContent({ movement: $event })"
        />, shown
        <SentenceValue v-slot="{ close }" :words="pageWords" name="Pages">
          <label
            v-for="option in [{ by: 'all' }, { by: 'section' }] as Pages[]"
            :key="option.by"
            class="flex items-center gap-2 py-0.5"
            ><input
              type="radio"
              class="accent-petrol"
              name="pages"
              :checked="content.pages.by === option.by"
              @change="turnPages(option, close)"
            />
            {{ option.by === 'all' ? 'all together' : 'by section' }}</label
          >
          <label class="flex items-center gap-2 py-0.5"
            ><input
              type="radio"
              class="accent-petrol"
              name="pages"
              :checked="content.pages.by === 'count'"
              @change="setContent({ pages: { by: 'count', count: 1 } })"
            />
            <input
              class="field w-18! py-0.5"
              aria-label="Questions to a page"
              type="number"
              min="1"
              max="50"
              :value="content.pages.by === 'count' ? content.pages.count : 1"
              @change="setContent({ pages: { by: 'count', count: Number(($event.target as HTMLInputElement).value) } })"
            />
            to a page</label
          > </SentenceValue
        >, options
        <SentenceChoice
          :model-value="content.shuffleOptions"
          name="Options"
          :options="[
            { value: true, label: 'shuffled' },
            { value: false, label: 'in the order written' },
          ]"
          @update:model-value="setContent({ shuffleOptions: $event })"
        />.
      </p>
      <p>
        To start, they need
        <SentenceValue
          v-slot="{ close }"
          :words="rules.password ? `the password “${rules.password}”` : 'no password'"
          name="Password"
        >
          <form class="flex flex-wrap gap-2" @submit.prevent="askFor(password.trim() || null, close)">
            <input
              v-model="password"
              class="field w-40! py-1"
              aria-label="Password of the quiz"
              maxlength="80"
            /><button class="btn btn-main py-1" :disabled="!password.trim()">Set</button
            ><button type="button" class="btn py-1" @click="askFor(null, close)">No password</button>
          </form> </SentenceValue
        >. Beforehand it is
        <SentenceChoice
          :model-value="rules.announced"
          name="Announced"
          :options="[
            { value: true, label: 'announced to them' },
            { value: false, label: 'not shown to them' },
          ]"
          @update:model-value="setRules({ announced: $event })"
        />.
      </p>
    </div>
  </section>
</template>
