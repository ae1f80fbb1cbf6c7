<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import { schoolRoutes } from '~/client/school'
import { useAsyncState } from '@vueuse/core'
import type { Register } from '~~/server/domain/classes/register'

/** What a class is called, its term, who teaches it, and whether it is filed away. */
const { register } = defineProps<{ open: boolean; register: Register }>()
const emit = defineEmits<{ close: []; changed: [] }>()
const session = useSession()
const name = ref(register.name)
const email = ref('')
const may = ref<'teach' | 'help'>('teach')
const { state: terms } = useAsyncState(() => schoolRoutes.terms(), [])
const { problem, busy, act } = useAct()

async function change(body: Parameters<typeof classRoutes.change>[0]['body'], said: string) {
  if (await act(() => classRoutes.change({ id: register.id, body }), said)) emit('changed')
}
async function letIn() {
  const body = { email: email.value, may: may.value }
  if (!(await act(() => classRoutes.setTeacher({ id: register.id, body }), `${email.value} has a part in the class.`)))
    return
  email.value = ''
  emit('changed')
}
async function takeOut(teacher: { id: string; name: string }) {
  const own = teacher.id === session.person?.id
  const sure =
    !own ||
    (await confirmed(
      'Leave this class?',
      'You do not see it any more. A colleague who teaches it can let you in again.',
      'Leave it',
    ))
  if (!sure) return
  if (
    !(await act(() => classRoutes.takeTeacherOut({ id: register.id, teacher: teacher.id }), `${teacher.name} is out.`))
  )
    return
  if (own) await navigateTo('/classes')
  else emit('changed')
}
</script>

<template>
  <ModalDialog :open="open" title="About this class" @close="emit('close')">
    <div class="space-y-5">
      <form class="flex items-end gap-2" @submit.prevent="change({ name }, 'Renamed.')">
        <LabelledField label="Name" class="grow"
          ><input v-model="name" class="field" maxlength="80" required
        /></LabelledField>
        <button class="btn" :disabled="busy || name === register.name">Rename</button>
      </form>
      <LabelledField label="Term"
        ><select
          class="field"
          :value="register.term?.id ?? ''"
          @change="change({ term: ($event.target as HTMLSelectElement).value || null }, 'Kept.')"
        >
          <option value="">none</option>
          <option v-for="term in terms" :key="term.id" :value="term.id">{{ term.name }}</option>
        </select></LabelledField
      >
      <div>
        <h3 class="small-head border-b border-rule pb-1">Its quizzes</h3>
        <p class="mt-1">
          {{
            register.held
              ? 'All quizzes are held back from this class: nobody in it sees or begins one by it. Whoever has begun goes on.'
              : 'Quizzes of this class are seen and sat as their rules say.'
          }}
        </p>
        <button
          class="btn mt-2"
          :disabled="busy"
          @click="
            change(
              { held: !register.held },
              register.held ? 'All quizzes are given again.' : 'All quizzes are held back.',
            )
          "
        >
          {{ register.held ? 'Give them again' : 'Hold all its quizzes back' }}
        </button>
      </div>
      <div>
        <h3 class="small-head border-b border-rule pb-1">Teachers</h3>
        <ul>
          <li
            v-for="teacher in register.teachers"
            :key="teacher.id"
            class="flex items-center gap-2 border-b border-rule py-1"
          >
            <span class="grow"
              >{{ teacher.name }}<span v-if="teacher.may === 'help'" class="text-soft">, helps</span></span
            >
            <button
              class="btn btn-quiet"
              :aria-label="`Take ${teacher.name} out`"
              :disabled="busy"
              @click="takeOut(teacher)"
            >
              {{ teacher.id === session.person?.id ? 'Leave' : 'Take out' }}
            </button>
          </li>
        </ul>
        <form class="mt-2 flex flex-wrap items-end gap-2" @submit.prevent="letIn">
          <LabelledField label="E-mail of a colleague" class="grow"
            ><input v-model="email" class="field" type="email" required
          /></LabelledField>
          <LabelledField label="who"
            ><select v-model="may" class="field">
              <option value="teach">teaches it</option>
              <option value="help">helps: sees the register, not the reasons</option>
            </select></LabelledField
          >
          <button class="btn" :disabled="busy">Let in</button>
        </form>
      </div>
      <ProblemNote :words="problem" />
      <div class="flex flex-wrap justify-between gap-2">
        <button
          class="btn"
          :disabled="busy"
          @click="
            change(
              { filed: !register.filed },
              register.filed ? 'The class is back.' : 'The class is filed away; its papers and marks stay.',
            )
          "
        >
          {{ register.filed ? 'Bring it back' : 'File it away' }}
        </button>
        <button class="btn btn-main" @click="emit('close')">Done</button>
      </div>
    </div>
  </ModalDialog>
</template>
