<script setup lang="ts">
import { useAsyncState } from '@vueuse/core'
import { folderRoutes } from '~/client/folders'
import { quizRoutes } from '~/client/quizzes'
import { sentenceTime } from '~~/core/kit/phrases'
import { stateLabels } from '~~/core/quiz/state'
import type { QuizListRow } from '~~/server/domain/quizzes/list'
import type { QuizLook } from '~~/server/domain/quizzes/look'

useHead({ title: 'Quizzes · Thistle' })
const session = useSession()
const { query, isNarrowed, items: quizzes, more, isReady, error, next, again } = useQuizSearch('mine')
const { state: known, execute: learn } = useAsyncState(
  async () => ({ folders: await folderRoutes.list(), words: await quizRoutes.words() }),
  { folders: [], words: { terms: [], tags: [] } },
)
const folderName = (id: string | null) => known.value.folders.find((each) => each.id === id)?.name ?? ''
/** What it is filed under, in one line. */
const filedAs = (quiz: QuizListRow) => [quiz.term, folderName(quiz.folder), ...quiz.tags].filter(Boolean).join(' · ')
const filing = shallowRef<QuizListRow | null>(null)
const look = shallowRef<QuizLook | null>(null)
const lookAt = (id: string) =>
  act(async () => {
    look.value = await quizRoutes.look({ id })
  })
/** One comes here by the address of a quiz. */
const { look: asked, new: begins } = useRoute().query
const newTitle = useTemplateRef<HTMLInputElement>('newTitle')
onMounted(() => {
  if (asked) void lookAt(String(asked))
  if (begins) newTitle.value?.focus()
})
/** One was let in to look at it, and looks no more. */
const leave = (id: string) =>
  act(async () => {
    await quizRoutes.unshare({ id, query: { person: session.person!.id } })
    look.value = null
    announce('It is off your list. Its owner can let you in again.')
    await again()
  })
function kept() {
  filing.value = null
  void again()
  void learn()
}
/** Of one that is looked at: to be copied from there. */
const looked = computed(() => quizzes.value.find(({ id }) => id === look.value?.id) ?? null)
function copyLooked() {
  copying.value = looked.value
  look.value = null
}
const title = ref('')
const copying = shallowRef<QuizListRow | null>(null)
const { problem, act } = useAct()
const target = (quiz: QuizListRow) =>
  `/quizzes/${quiz.id}/${quiz.state === 'draft' ? 'compose' : quiz.state === 'scheduled' ? 'rules' : 'marks'}`
const times = (quiz: QuizListRow) =>
  quiz.opens
    ? `${sentenceTime(quiz.opens, session.zone)} – ${quiz.closes ? sentenceTime(quiz.closes, session.zone) : 'no end'}`
    : 'no window yet'

async function create() {
  await act(async () => {
    const { id } = await quizRoutes.add({ body: { title: title.value } })
    await navigateTo(`/quizzes/${id}/compose`)
  })
}
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-5xl px-5 py-8">
    <div class="flex flex-wrap items-end justify-between gap-4">
      <h1 class="text-3xl">Quizzes</h1>
      <form class="flex grow flex-wrap items-end justify-end gap-2" @submit.prevent="create">
        <div class="grow sm:grow-0">
          <LabelledField label="Title of a new quiz"
            ><input ref="newTitle" v-model="title" class="field sm:w-72" maxlength="160" required
          /></LabelledField>
        </div>
        <button class="btn btn-main">Start a quiz</button>
      </form>
    </div>
    <ProblemNote v-if="problem || error" class="mt-4" :words="problem || sentenceOf(error)" />
    <div class="mt-6 flex flex-wrap items-end gap-3">
      <LabelledField label="Find a quiz" class="grow"
        ><input v-model="query.words" class="field py-1" type="search" placeholder="title, description, tag, term"
      /></LabelledField>
      <LabelledField label="Whose"
        ><select v-model="query.whose" class="field py-1">
          <option value="mine">mine, and shared with me</option>
          <option value="school">of the school</option>
          <option value="all">all that I may look at</option>
        </select></LabelledField
      >
      <LabelledField v-if="known.words.terms.length" label="Term"
        ><select v-model="query.term" class="field py-1">
          <option value="">any</option>
          <option v-for="each in known.words.terms" :key="each" :value="each">{{ each }}</option>
        </select></LabelledField
      >
      <LabelledField v-if="known.words.tags.length" label="Tag"
        ><select v-model="query.tag" class="field py-1">
          <option value="">any</option>
          <option v-for="each in known.words.tags" :key="each" :value="each">{{ each }}</option>
        </select></LabelledField
      >
      <LabelledField v-if="known.folders.length" label="Folder"
        ><select v-model="query.folder" class="field max-w-48 py-1">
          <option value="">any</option>
          <option v-for="each in known.folders" :key="each.id" :value="each.id">{{ each.name }}</option>
        </select></LabelledField
      >
    </div>
    <EmptyNote
      v-if="isReady && !error && !quizzes.length"
      :title="
        isNarrowed ? 'No quiz is found' : query.whose === 'school' ? 'Nothing is shared with the school' : 'No quiz yet'
      "
      class="mt-8"
      ><template v-if="isNarrowed">Try fewer words, or look through all that you may look at.</template
      ><template v-else-if="query.whose === 'school'"
        >A colleague who shares a quiz with the school makes it appear here.</template
      ><template v-else>Give a new one a title, and start it.</template></EmptyNote
    >
    <div v-else class="relative mt-6 overflow-x-auto" tabindex="0" role="region" aria-label="Quizzes">
      <table class="listed w-full text-left sm:min-w-160">
        <thead>
          <tr class="border-b border-ink text-small text-soft">
            <th class="py-1.5 font-semibold">Quiz</th>
            <th class="font-semibold">State</th>
            <th class="font-semibold">Window</th>
            <th class="font-semibold">Classes</th>
            <th class="text-right font-semibold">Sitting</th>
            <th class="text-right font-semibold">Handed in</th>
            <th><span class="sr-only">Copy</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="quiz in quizzes" :key="quiz.id" class="border-b border-rule align-top">
            <td class="py-2.5 pr-4">
              <NuxtLink v-if="quiz.may === 'write'" :to="target(quiz)" class="font-serif text-lg hover:underline">{{
                quiz.title
              }}</NuxtLink>
              <button v-else class="text-left font-serif text-lg hover:underline" @click="lookAt(quiz.id)">
                {{ quiz.title }}
              </button>
              <span v-if="!quiz.mine" class="block text-small text-soft"
                >{{ quiz.may === 'write' ? 'shared by' : 'of' }} {{ quiz.ownerName }}</span
              ><span v-if="quiz.mine && quiz.sharing === 'school'" class="block text-small text-soft"
                >shared with the school</span
              ><span v-if="filedAs(quiz)" class="block text-small text-soft">{{ filedAs(quiz) }}</span>
            </td>
            <td class="py-3 pr-4">
              <span v-if="quiz.may === 'write'" class="state">{{ stateLabels[quiz.state] }}</span><span
                v-else
                class="text-label text-soft"
                >to look at</span
              >
            </td>
            <td class="py-3 pr-4 text-label" data-name="Window">{{ quiz.may === 'write' ? times(quiz) : '–' }}</td>
            <td class="py-3 pr-4 text-label" data-name="Classes" :data-empty="!quiz.meant.length">
              {{ quiz.meant.join(', ') || '–' }}
            </td>
            <td class="py-3 text-right" data-name="Sitting" :data-empty="!quiz.sitting">{{ quiz.sitting || '–' }}</td>
            <td class="py-3 text-right" data-name="Handed in" :data-empty="!quiz.handedIn">
              {{ quiz.handedIn || '–' }}
            </td>
            <td class="space-x-3 whitespace-nowrap py-3 pl-4 text-right">
              <button class="link min-h-6 text-label" :aria-label="`Look into ${quiz.title}`" @click="lookAt(quiz.id)">
                look
              </button>
              <button
                v-if="quiz.may === 'write'"
                class="link min-h-6 text-label"
                :aria-label="`File: ${quiz.title}`"
                @click="filing = quiz"
              >
                file
              </button>
              <button class="link min-h-6 text-label" :aria-label="`Copy: ${quiz.title}`" @click="copying = quiz">
                copy
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="more" class="mt-4"><button class="btn" @click="next">Show older quizzes</button></p>
    </div>
    <CopyDialog :quiz="copying" @close="copying = null" />
    <FilingDialog :quiz="filing" @close="filing = null" @kept="kept" />
    <SidePanel v-if="look" open :title="look.title" @close="look = null">
      <template #acts>
        <NuxtLink v-if="look.may === 'write'" class="btn" :to="`/quizzes/${look.id}/compose`">Open it</NuxtLink>
        <button v-if="look.may === 'read' && look.filing.sharing === 'named'" class="btn" @click="leave(look.id)">
          Take it off my list
        </button>
        <button v-if="looked" class="btn btn-main" @click="copyLooked">Copy it …</button>
      </template>
      <QuizOutline :look="look" />
    </SidePanel>
  </main>
</template>
