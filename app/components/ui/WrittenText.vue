<script setup lang="ts">
/** HTML that people wrote, cleaned. Maths brings its style sheet along only where there is any. */
const { html } = defineProps<{ html: string; language?: string }>()
const clean = computed(() => safeHtml(html))
const root = useTemplateRef<HTMLElement>('root')
watchEffect(() => {
  if (clean.value.includes('katex')) import('katex/dist/katex.min.css')
})
watch(
  clean,
  async (text) => {
    if (!text.includes('data-plays')) return
    await nextTick()
    root.value?.querySelectorAll<HTMLMediaElement>('[data-plays]').forEach(limitPlays)
  },
  { immediate: true },
)
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- cleaned above -->
  <div ref="root" dir="auto" class="written" :lang="language" v-html="clean" />
</template>
