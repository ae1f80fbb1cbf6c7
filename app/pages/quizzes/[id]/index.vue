<script setup lang="ts">
definePageMeta({ redirect: (to) => `/quizzes/${String(to.params.id)}/compose` })
</script>

<template><main id="main" /></template>
