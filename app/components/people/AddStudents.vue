<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import type { Reply } from '~/client/route'
import { count } from '~~/core/kit/phrases'
import { readPasted } from '~~/formats/roster/pasted'

/** A list of names or addresses into a class: what is read of it stands beside it while it is written. */
const { classId, name } = defineProps<{ open: boolean; classId: string; name: string }>()
const emit = defineEmits<{ close: []; added: [] }>()
const list = ref('')
const invite = ref(true)
const done = shallowRef<Reply<typeof classRoutes.add> | null>(null)
const { problem, busy, act } = useAct()
const lines = computed(() => readPasted(list.value))
const good = computed(() => lines.value.filter((line) => !line.fault).length)

/** A CSV file becomes the list, to be read over before anything is taken. */
const notes = ref<string[]>([])
async function fromFile(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (!file) return
  problem.value = ''
  notes.value = []
  try {
    if (file.size > 1_000_000) throw new Error(`“${file.name}” is larger than 1 MB. Is it the list of one class?`)
    const { listFromCsv } = await import('~~/formats/roster/list-file')
    const read = listFromCsv(file.name, new Uint8Array(await file.arrayBuffer()))
    list.value = read.list
    notes.value = read.notes
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
}

async function add() {
  const reply = await act(() => classRoutes.add({ id: classId, body: { list: list.value, invite: invite.value } }))
  if (!reply) return
  done.value = reply
  list.value = ''
  emit('added')
}
function close() {
  done.value = null
  notes.value = []
  problem.value = ''
  emit('close')
}
</script>

<template>
  <ModalDialog :open="open" :title="`Students for ${name}`" wide @close="close">
    <div v-if="done" class="space-y-3">
      <p v-if="done.made.length || done.joined.length" role="status" class="note-good">
        {{ count(done.made.length + done.joined.length, 'student') }} came into the class<template
          v-if="done.joined.length"
          >, {{ done.joined.length }} of them known to the school</template
        >.
        <template v-if="done.invited">{{ count(done.invited, 'letter') }} with a link went out.</template>
      </p>
      <p v-if="done.already.length" class="text-soft">
        {{ done.already.map((each) => each.name).join(', ') }}: in the class already.
      </p>
      <ul v-if="done.refused.length" class="note-look space-y-1">
        <li v-for="(each, i) in done.refused" :key="i">{{ each.name || each.email }}: {{ each.sentence }}</li>
      </ul>
      <div class="flex justify-end gap-2">
        <button class="btn" @click="done = null">More</button><button class="btn btn-main" @click="close">Done</button>
      </div>
    </div>
    <form v-else class="space-y-4" @submit.prevent="add">
      <LabelledField label="One person a line: a name, an e-mail address, or both">
        <textarea
          v-model="list"
          class="field"
          rows="7"
          placeholder="Ada Brook&#10;ben.carr@school.example&#10;Cleo Dunn, cleo@school.example"
          maxlength="200000"
        />
      </LabelledField>
      <label class="btn inline-flex cursor-pointer focus-within:outline-2 focus-within:outline-bloom"
        >Take a CSV file…<input
          type="file"
          class="sr-only"
          accept=".csv,.txt,text/csv"
          aria-label="Take a CSV file"
          @change="fromFile"
      /></label>
      <ul v-if="notes.length" class="note-look space-y-1" role="status">
        <li v-for="note in notes" :key="note">{{ note }}</li>
      </ul>
      <div
        v-if="lines.length"
        class="max-h-52 overflow-y-auto border-y border-rule"
        tabindex="0"
        role="region"
        aria-label="What is read of it"
      >
        <table class="w-full text-label">
          <tbody>
            <tr v-for="line in lines" :key="line.line" class="border-b border-rule/60">
              <td class="w-1/2 py-0.5 pr-3">{{ line.name }}</td>
              <td class="text-soft">
                <span v-if="line.fault" class="text-amber">{{ line.fault }}</span><template v-else>{{
                  line.email ?? 'no address: they come in by a link that you hand over'
                }}</template>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <TickBox v-model="invite">write to those who have an address and no password yet</TickBox>
      <ProblemNote :words="problem" />
      <div class="flex justify-end gap-2">
        <button type="button" class="btn" @click="close">Leave it</button
        ><button class="btn btn-main" :disabled="busy || !good">
          {{ busy ? 'Adding …' : good ? `Add ${count(good, 'student')}` : 'Add' }}
        </button>
      </div>
    </form>
  </ModalDialog>
</template>
