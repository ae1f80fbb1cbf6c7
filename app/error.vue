<script setup lang="ts">
import type { NuxtError } from '#app'

const { error } = defineProps<{ error: NuxtError }>()
const sentence = computed(() =>
  error.statusCode === 404
    ? 'There is nothing at this address.'
    : error.statusMessage || 'Something failed. Try again.',
)
</script>

<template>
  <main class="mx-auto max-w-xl px-6 py-24">
    <h1 class="text-2xl">This page cannot be shown</h1>
    <p class="mt-3 text-lg">{{ sentence }}</p>
    <button class="btn btn-main mt-6" @click="clearError({ redirect: '/' })">Go to the beginning</button>
  </main>
</template>
