<script setup lang="ts">
import { percent, roughTime } from '~~/core/kit/phrases'
import { kindLabels } from '~~/core/question/kinds'
import type { Hit } from '~~/server/domain/bank/finding/hits'

/** Kind, time, share right and use of a question, in one line. */
defineProps<{ hit: Pick<Hit, 'kind' | 'seconds' | 'right' | 'used' | 'state'> }>()
</script>

<template>
  <span class="flex flex-wrap gap-x-2.5 text-note text-soft">
    <span>{{ kindLabels[hit.kind] }}</span><span>{{ roughTime(hit.seconds) }}</span>
    <span v-if="hit.right">{{ percent(hit.right.share) }} right of {{ hit.right.n }}</span>
    <span>{{ hit.used ? `used ${hit.used}×` : 'new' }}</span>
    <span v-if="hit.state !== 'usable'" class="text-amber">{{ hit.state === 'work' ? 'in work' : 'retired' }}</span>
  </span>
</template>
