<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import { sentenceTime } from '~~/core/kit/phrases'
import { shownCode } from '~~/core/people'
import type { Register } from '~~/server/domain/classes/register'

/** How people get into a class by themselves: its code, shown large where that is wanted, renewed and ended. */
const { register, may } = defineProps<{ register: Pick<Register, 'id' | 'name' | 'code' | 'filed'>; may: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const days = ref(7)
const wall = ref(false)
const { problem, busy, act } = useAct()
const place = `${location.origin}/join`

async function renew() {
  if (await act(() => classRoutes.renewCode({ id: register.id, body: { days: days.value } }))) emit('changed')
}
async function end() {
  if (await act(() => classRoutes.endCode({ id: register.id }), 'The code is over: nobody joins by it any more.'))
    emit('changed')
}
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1 text-xl">Getting in</h2>
    <template v-if="register.code">
      <p class="mt-2">
        code <strong class="font-serif text-2xl tracking-widest">{{ shownCode(register.code.code) }}</strong>
      </p>
      <p class="text-label text-soft">until {{ sentenceTime(register.code.until, session.zone) }}, at {{ place }}</p>
      <div class="mt-1 flex flex-wrap gap-x-1">
        <button class="btn btn-quiet" @click="wall = true">Show it on the wall</button>
        <template v-if="may"
          ><button class="btn btn-quiet" :disabled="busy" @click="renew">Renew</button
          ><button class="btn btn-quiet" :disabled="busy" @click="end">End it</button></template
        >
      </div>
    </template>
    <template v-else>
      <p class="mt-2 text-soft">Nobody joins by a code at the moment.</p>
      <form v-if="may && !register.filed" class="mt-2 flex flex-wrap items-end gap-2" @submit.prevent="renew">
        <LabelledField label="For how many days"
          ><input v-model.number="days" class="field w-24!" type="number" min="1" max="120" required
        /></LabelledField>
        <button class="btn" :disabled="busy">Make a code</button>
      </form>
    </template>
    <ProblemNote class="mt-2" :words="problem" />
    <ModalDialog v-if="register.code" :open="wall" :title="register.name" wide @close="wall = false">
      <p class="text-center text-xl">
        Go to <strong>{{ place }}</strong> and type
      </p>
      <p class="py-8 text-center font-serif text-6xl font-semibold tracking-[0.15em] whitespace-nowrap sm:text-8xl">
        {{ shownCode(register.code.code) }}
      </p>
      <div class="text-center"><button class="btn" @click="wall = false">Close</button></div>
    </ModalDialog>
  </section>
</template>
