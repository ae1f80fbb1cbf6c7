<script setup lang="ts">
import { kindLabels } from '~~/core/question/kinds/labels'
import type { Hit } from '~~/server/domain/bank/hits'

/** Kind, time, share right and use of a question, in one line. */
defineProps<{ hit: Pick<Hit, 'kind' | 'seconds' | 'right' | 'used' | 'state'> }>()
const time = (seconds: number) => (seconds < 100 ? `${seconds} s` : `${Math.round(seconds / 60)} min`)
</script>

<template>
  <span class="flex flex-wrap gap-x-2.5 text-[0.8125rem] text-soft">
    <span>{{ kindLabels[hit.kind] }}</span><span>{{ time(hit.seconds) }}</span>
    <span v-if="hit.right">{{ Math.round(hit.right.share * 100) }} % right of {{ hit.right.n }}</span>
    <span>{{ hit.used ? `used ${hit.used}×` : 'new' }}</span>
    <span v-if="hit.state !== 'usable'" class="text-amber">{{ hit.state === 'work' ? 'in work' : 'retired' }}</span>
  </span>
</template>
