<script setup lang="ts">
import { alikeName } from '~~/core/people'
import type { Kind } from '~~/core/day-line/kinds'

/** Who is rehearsed: a kind of student that the rules tell apart, or anyone by name. */
const { kinds, students, chosen } = defineProps<{
  kinds: Kind[]
  students: readonly { id: string; name: string }[]
  chosen: Kind['who']
}>()
const emit = defineEmits<{ choose: [who: Kind['who']] }>()
const typed = ref('')
const found = computed(() => {
  const wanted = alikeName(typed.value)
  return wanted ? students.filter(({ name }) => alikeName(name).includes(wanted)).slice(0, 8) : []
})
const isChosen = ({ who, students: members }: Kind) =>
  'student' in chosen
    ? members.some(({ id }) => id === chosen.student)
    : 'inClass' in who && who.inClass === chosen.inClass
function choose(who: Kind['who']) {
  typed.value = ''
  emit('choose', who)
}
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1.5 text-xl">Who</h2>
    <p class="mt-1.5 text-note text-soft">kinds that these rules tell apart</p>
    <ul>
      <li v-for="kind in kinds" :key="kind.key" class="border-b border-rule">
        <button
          class="w-full px-1.5 py-1.5 text-left"
          :class="isChosen(kind) ? 'bg-bloom-tint font-semibold' : 'hover:bg-petrol-tint'"
          :aria-pressed="isChosen(kind)"
          @click="choose(kind.who)"
        >
          {{ kind.name }} <span class="font-normal text-soft">{{ kind.students.length || 'nobody yet' }}</span>
        </button>
      </li>
    </ul>
    <p v-if="!kinds.length" class="mt-1 text-label text-soft">No class has a window yet: set who sits it in Rules.</p>
    <label class="mt-2 block"
      ><span class="text-note text-soft">or anyone by name</span
      ><input v-model="typed" class="field py-1" type="search" placeholder="Type a name"
    /></label>
    <ul v-if="found.length" class="border-x border-b border-rule bg-sheet">
      <li v-for="student in found" :key="student.id">
        <button class="w-full px-2 py-1 text-left hover:bg-petrol-tint" @click="choose({ student: student.id })">
          {{ student.name }}
        </button>
      </li>
    </ul>
    <p v-else-if="typed" class="mt-1 text-note text-soft">Nobody of your classes is called so.</p>
  </section>
</template>
