<template>
  <a
    href="#main"
    class="sr-only focus:not-sr-only focus:fixed focus:left-2 focus:top-2 focus:z-50 focus:bg-sheet focus:p-2"
    >To the content</a
  >
  <NuxtLayout><NuxtPage /></NuxtLayout>
</template>
