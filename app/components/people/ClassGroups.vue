<script setup lang="ts">
import { classRoutes } from '~/client/classes'
import { count } from '~~/core/kit/phrases'
import { needWords } from '~~/core/people'
import { languageName } from '~~/core/question/language-name'
import type { Accommodation } from '~~/core/quiz'
import type { Register } from '~~/server/domain/classes/register'

/** Groups of a class: who is in each, and what all of it is given. */
const { register, may } = defineProps<{ register: Pick<Register, 'id' | 'groups' | 'students'>; may: boolean }>()
const emit = defineEmits<{ changed: []; choose: [students: string[]] }>()
const { problem, busy, act } = useAct()
const giving = ref<Register['groups'][number] | null>(null)

async function give(need: Accommodation) {
  const group = giving.value!
  const kept = await act(
    () => classRoutes.setGroupNeed({ id: register.id, group: group.id, body: need }),
    `${group.name}: kept. Every quiz of theirs follows it.`,
  )
  if (!kept) return
  giving.value = null
  emit('changed')
}
async function drop(group: Register['groups'][number]) {
  const again = () =>
    void act(() => classRoutes.makeGroup({ id: register.id, body: { name: group.name, members: group.members } })).then(
      async (groups) => {
        const back = groups?.find((each) => each.name === group.name)
        if (back)
          await act(() => classRoutes.setGroupNeed({ id: register.id, group: back.id, body: group.accommodation }))
        emit('changed')
      },
    )
  if (
    await act(
      () => classRoutes.dropGroup({ id: register.id, group: group.id }),
      `“${group.name}” is taken apart.`,
      again,
    )
  )
    emit('changed')
}
</script>

<template>
  <section v-if="register.groups.length">
    <h2 class="border-b border-ink pb-1 text-xl">Groups</h2>
    <ul>
      <li v-for="group in register.groups" :key="group.id" class="border-b border-rule py-2">
        <button class="link font-semibold" @click="emit('choose', group.members)">{{ group.name }}</button>
        <span class="text-label text-soft"> {{ count(group.members.length, 'student') }}</span>
        <p v-if="needWords(group.accommodation).length" class="text-label text-petrol">
          {{ needWords(group.accommodation, languageName).join(', ') }}
        </p>
        <div v-if="may" class="-ml-2 flex flex-wrap">
          <button class="btn btn-quiet" @click="giving = group">More time…</button>
          <button class="btn btn-quiet" :disabled="busy" @click="drop(group)">Take apart</button>
        </div>
      </li>
    </ul>
    <ProblemNote v-if="!giving" class="mt-2" :words="problem" />
    <NeedDialog
      v-if="giving"
      :open="true"
      :who="`the group “${giving.name}”`"
      :need="giving.accommodation"
      :reason="null"
      :problem="problem"
      :busy="busy"
      @close="giving = null"
      @keep="give"
    />
  </section>
</template>
