<script setup lang="ts">
import type { Difference } from '~~/core/question/difference'
import type { Hit } from '~~/server/domain/bank/finding/hits'
import { questionRoutes } from '~/client/questions'

/** Which version of a question students get: the newest at opening, or one that it stays at, with what has changed since. */
const { hit, version } = defineProps<{ hit: Hit; version: number | null }>()
const emit = defineEmits<{ set: [version: number | null] }>()
const { problem, act } = useAct()
const differs = shallowRef<Difference[] | null>(null)
const isBehind = computed(() => version !== null && version < hit.version)
watch([() => version, () => hit.version], () => {
  differs.value = null
})
const compare = () =>
  act(async () => {
    differs.value = await questionRoutes.differences({ id: hit.id, query: { from: version!, to: hit.version } })
  })
</script>

<template>
  <div class="text-label">
    <p>
      <template v-if="version === null"
        >Students get its newest version when the quiz is opened: now version {{ hit.version }}.
        <button class="link" @click="emit('set', hit.version)">Stay at this version</button></template
      >
      <template v-else
        >It stays at version {{ version }}.
        <button class="link" @click="emit('set', null)">Follow the newest instead</button></template
      >
    </p>
    <p v-if="isBehind" class="note-look mt-1">
      Version {{ hit.version }} is there.
      <button class="link" @click="compare">What changed</button>
      <button class="link ml-3" @click="emit('set', hit.version)">Take version {{ hit.version }}</button>
    </p>
    <ProblemNote :words="problem" />
    <div v-if="differs" class="mt-2 border-l-4 border-petrol-mid pl-4">
      <p v-if="!differs.length">Nothing that is read differs.</p>
      <p v-for="each in differs" :key="each.part">
        <span class="text-soft">{{ each.part }}:</span> <DifferencePieces :pieces="each.pieces" />
      </p>
    </div>
  </div>
</template>
