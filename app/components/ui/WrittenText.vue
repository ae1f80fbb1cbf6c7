<script setup lang="ts">
/** HTML that people wrote, cleaned. Maths brings its style sheet along only where there is any. */
const { html } = defineProps<{ html: string, language?: string }>()
const clean = computed(() => safeHtml(html))
watchEffect(() => { if (clean.value.includes('katex')) import('katex/dist/katex.min.css') })
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- cleaned above -->
  <div class="written" :lang="language" v-html="clean" />
</template>
