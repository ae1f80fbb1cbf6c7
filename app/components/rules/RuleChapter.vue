<script setup lang="ts">
import { chapters, sentencesOf, type Chapter, type Offer, type Piece, type Slot } from '~~/core/rules'

/** A chapter of the rules as sentences with the values in them. What a sentence says is core's; this only draws it. */
const { chapter } = defineProps<{ chapter: Chapter }>()
const store = useQuiz()
const reading = useRulesReading()
const sentences = computed(() => (reading.value ? sentencesOf(chapter, reading.value) : []))
const isSlot = (piece: Piece): piece is Slot => typeof piece === 'object' && 'control' in piece
const isOffer = (piece: Piece): piece is Offer => typeof piece === 'object' && 'offer' in piece
</script>

<template>
  <section>
    <h2 class="border-b border-ink pb-1.5 text-xl">{{ chapters[chapter] }}</h2>
    <div class="mt-2 space-y-1.5 font-serif text-base leading-8">
      <p v-for="sentence in sentences" :key="sentence.key">
        <template v-for="(piece, index) in sentence.pieces" :key="index"
          ><SentenceSlot v-if="isSlot(piece)" :place="piece" /><button
            v-else-if="isOffer(piece)"
            type="button"
            class="link mr-2 font-sans text-small"
            @click="store.make(piece.edit)"
          >
            {{ piece.offer }}</button
          ><template v-else>{{ piece }}</template></template
        >
      </p>
      <slot :empty="!sentences.length" />
    </div>
  </section>
</template>
