<script setup lang="ts">
import { blueprintRoutes } from '~/client/blueprints'
import type { Blueprint } from '~~/core/blueprint'
import type { KeptBlueprint } from '~~/server/domain/blueprints/keep'

/** Blueprints that are kept, one's own and those that colleagues share: taken up, changed, shared, let go. */
const { blueprint } = defineProps<{ blueprint: Blueprint }>()
const emit = defineEmits<{ use: [Blueprint]; readOff: [] }>()
const kept = shallowRef<KeptBlueprint[]>([])
const { problem, act } = useAct()
const title = ref('')
const asking = ref(false)
const current = ref<string | null>(null)
const mine = computed(() => kept.value.find((each) => each.id === current.value && each.mine))

const load = () =>
  act(async () => {
    kept.value = await blueprintRoutes.list()
  })
onMounted(load)

function use(id: string) {
  const found = kept.value.find((each) => each.id === id)
  if (!found) return
  current.value = id
  title.value = found.title
  emit('use', found.blueprint)
}
async function keep(shared: boolean) {
  const body = { blueprint: { ...blueprint, title: title.value.trim() || blueprint.title }, shared }
  const reply = await act(
    () => (mine.value ? blueprintRoutes.change({ id: mine.value.id, body }) : blueprintRoutes.keep({ body })),
    'The blueprint is kept.',
  )
  if (!reply) return
  current.value = reply.id
  asking.value = false
  await load()
}
async function drop() {
  const { id } = mine.value!
  const gone = await act(() => blueprintRoutes.drop({ id }))
  if (!gone) return
  current.value = null
  await load()
  announce('The blueprint is let go.', () => {
    void act(() => blueprintRoutes.keep({ body: gone })).then(load)
  })
}
</script>

<template>
  <div>
    <div class="flex flex-wrap items-center gap-2">
      <PickMenu
        words="Take up a blueprint"
        :options="
          kept.map(({ id, title: name, mine: own, owner }) => ({ value: id, label: own ? name : `${name} · ${owner}` }))
        "
        @pick="use"
      />
      <button type="button" class="btn py-1" @click="emit('readOff')">Read one off this quiz</button>
      <button type="button" class="btn py-1" :aria-expanded="asking" @click="asking = !asking">
        Keep this blueprint …
      </button>
    </div>
    <form v-if="asking" class="mt-2 flex flex-wrap items-end gap-2" @submit.prevent="keep(mine?.shared ?? false)">
      <LabelledField label="Name of the blueprint" class="grow"
        ><input v-model="title" class="field py-1" maxlength="160" :placeholder="blueprint.title"
      /></LabelledField>
      <button class="btn btn-main py-1">{{ mine ? 'Keep the change' : 'Keep it' }}</button>
      <button v-if="mine" type="button" class="btn py-1" @click="keep(!mine.shared)">
        {{ mine.shared ? 'Keep it to myself' : 'Share it with the school' }}
      </button>
      <button v-if="mine" type="button" class="btn py-1" @click="drop">Let it go</button>
    </form>
    <ProblemNote class="mt-2" :words="problem" />
  </div>
</template>
