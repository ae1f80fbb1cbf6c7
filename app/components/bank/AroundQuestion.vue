<script setup lang="ts">
import { exact, fixed } from '~~/core/kit/exact'
import { questionRoutes } from '~/client/questions'
import { folderRoutes } from '~/client/folders'
import { sentenceTime, percent } from '~~/core/kit/phrases'
import type { Difference } from '~~/core/question/difference'
import type { QuestionDetail } from '~~/server/domain/bank/questions/questions'
import type { QuestionRecord } from '~~/server/domain/bank/questions/track-record'
import type { Remark } from '~~/server/domain/bank/questions/remarks'
import type { FolderEntry } from '~/composables/question-search'

/** What is around a kept question: folder and sharing, its record, remarks of colleagues, versions with their differences. */
const { detail } = defineProps<{ detail: QuestionDetail }>()
const emit = defineEmits<{ look: [version: number]; changed: [] }>()
const session = useSession()
const record = shallowRef<QuestionRecord | null>(null)
const remarks = shallowRef<Remark[]>([])
const folders = shallowRef<FolderEntry[]>([])
const differing = shallowRef<{ from: number; to: number; list: Difference[] } | null>(null)
const words = ref('')
const doubt = ref(false)
const email = ref('')
const may = ref<'read' | 'write'>('read')
const { problem, act } = useAct()

const loadRemarks = () =>
  act(async () => {
    remarks.value = await questionRoutes.remarks({ id: detail.id })
  })
onMounted(() =>
  act(async () => {
    ;[record.value, folders.value] = await Promise.all([questionRoutes.record({ id: detail.id }), folderRoutes.list()])
    await loadRemarks()
  }),
)
const keep = (values: object, said: string) =>
  act(async () => {
    await questionRoutes.setKeeping({ id: detail.id, body: values })
    announce(said)
    emit('changed')
  })
const say = () =>
  act(async () => {
    await questionRoutes.addRemark({ id: detail.id, body: { words: words.value, doubt: doubt.value } })
    words.value = ''
    doubt.value = false
    await loadRemarks()
  })
const answer = (remark: Remark) =>
  act(async () => {
    await questionRoutes.answerRemark({ id: detail.id, remark: remark.id, body: { answered: !remark.answeredAt } })
    await loadRemarks()
  })
const compare = (version: number) =>
  act(async () => {
    differing.value = {
      from: version,
      to: detail.version,
      list: await questionRoutes.differences({ id: detail.id, query: { from: version, to: detail.version } }),
    }
  })
const share = () =>
  act(async () => {
    const shares = [
      ...detail.shares
        .map((each) => ({ email: each.email, may: each.may }))
        .filter((each) => each.email !== email.value),
      { email: email.value, may: may.value },
    ]
    await questionRoutes.setKeeping({ id: detail.id, body: { sharing: 'named', shares } })
    email.value = ''
    emit('changed')
  })
const when = (at: string) => sentenceTime(at, session.zone)
</script>

<template>
  <div class="space-y-5">
    <ProblemNote :words="problem" />
    <fieldset class="flex flex-wrap items-end gap-4">
      <legend class="small-head mb-1">Kept</legend>
      <label class="text-note text-soft"
        >in the folder<select
          class="field block py-1"
          :value="detail.folder ?? ''"
          :disabled="!detail.mayWrite"
          @change="keep({ folder: ($event.target as HTMLSelectElement).value || null }, 'Moved.')"
        >
          <option value="">none</option>
          <option v-for="folder in folders" :key="folder.id" :value="folder.id">{{ folder.name }}</option>
        </select></label
      >
      <label class="text-note text-soft"
        >seen by<select
          aria-label="Seen by"
          class="field block py-1"
          :value="detail.sharing"
          :disabled="!detail.mine"
          @change="keep({ sharing: ($event.target as HTMLSelectElement).value }, 'Who may see it is set.')"
        >
          <option value="school">the school</option>
          <option value="named">named colleagues</option>
          <option value="private">me alone</option>
        </select></label
      >
      <form
        v-if="detail.mine && detail.sharing === 'named'"
        class="flex flex-wrap items-end gap-2"
        @submit.prevent="share"
      >
        <label class="text-note text-soft"
          >E-mail of a colleague<input v-model="email" type="email" required class="field block py-1" /></label
        ><select v-model="may" class="field w-auto! py-1" aria-label="May">
          <option value="read">may read</option>
          <option value="write">may write</option></select
        ><button class="btn py-1">Share</button>
      </form>
      <p v-if="detail.shares.length" class="text-label">
        {{ detail.shares.map((each) => `${each.name} (${each.may === 'write' ? 'writes' : 'reads'})`).join(', ') }}
      </p>
    </fieldset>
    <section v-if="record">
      <h2 class="small-head">Record</h2>
      <p v-if="record.facility !== null">
        {{ percent(record.facility) }} right<template v-if="record.discrimination !== null">
          · discrimination {{ fixed(exact(record.discrimination), 2) }}</template
        >
        <span class="text-soft">· {{ record.n }} first attempts</span>
      </p>
      <p v-else class="text-soft">{{ record.n }} answers so far; figures come from 8 on.</p>
      <p v-if="record.quizzes.length" class="text-label">
        In
        <template v-for="(quiz, index) in record.quizzes" :key="quiz.id"
          ><template v-if="index">, </template
          ><NuxtLink v-if="quiz.title" class="link" :to="`/quizzes/${quiz.id}/compose`">{{ quiz.title }}</NuxtLink
          ><span v-else>a colleague’s quiz</span></template
        ><template v-if="record.lastUsedAt"> · last opened {{ when(record.lastUsedAt) }}</template>
      </p>
      <p v-else class="text-label text-soft">In no quiz yet.</p>
    </section>
    <section>
      <h2 class="small-head">Remarks between colleagues</h2>
      <ul>
        <li v-for="remark in remarks" :key="remark.id" class="border-b border-rule py-1.5">
          <p :class="remark.doubt && !remark.answeredAt && 'font-semibold text-red'">
            {{ remark.doubt ? '! ' : '' }}{{ remark.words }}
          </p>
          <p class="text-note text-soft">
            {{ remark.by }}, {{ when(remark.at) }}, on version {{ remark.version
            }}<template v-if="remark.answeredAt"> · settled by {{ remark.answeredBy }}</template>
            <button v-if="remark.doubt" class="link" @click="answer(remark)">
              {{ remark.answeredAt ? 'open again' : 'settle' }}
            </button>
          </p>
        </li>
      </ul>
      <form class="mt-2 space-y-2" @submit.prevent="say">
        <textarea
          v-model="words"
          class="field"
          rows="2"
          maxlength="4000"
          required
          aria-label="A remark"
          placeholder="To colleagues; students never see it"
        />
        <p class="flex flex-wrap items-center gap-3">
          <TickBox v-model="doubt">something is wrong here</TickBox><button class="btn py-1">Say it</button>
        </p>
      </form>
    </section>
    <details>
      <summary class="small-head">
        {{ detail.versions.length }} {{ detail.versions.length === 1 ? 'version' : 'versions' }}
      </summary>
      <ul class="mt-2">
        <li
          v-for="version in detail.versions"
          :key="version.version"
          class="flex flex-wrap gap-x-3 border-b border-rule py-1.5 text-label"
        >
          Version {{ version.version }} · {{ version.madeBy }} · {{ when(version.madeAt) }}
          <button class="link" @click="emit('look', version.version)">Take it up</button
          ><button v-if="version.version !== detail.version" class="link" @click="compare(version.version)">
            What differs
          </button>
        </li>
      </ul>
      <div v-if="differing" class="mt-3 border-l-4 border-petrol-mid pl-4">
        <p class="text-soft">From version {{ differing.from }} to {{ differing.to }}</p>
        <p v-if="!differing.list.length">Nothing differs.</p>
        <p v-for="each in differing.list" :key="each.part">
          <span class="text-soft">{{ each.part }}:</span> <DifferencePieces :pieces="each.pieces" />
        </p>
      </div>
    </details>
  </div>
</template>
