<script setup lang="ts">
useHead({ title: 'Bring questions in · Thistle' })
const flow = useImport()
const { batch, problem, busy } = flow
const over = ref(false)
const take = (file: File | undefined | null) => {
  if (file) void flow.stage(file, file.name)
}
function chosen(event: Event) {
  const field = event.target as HTMLInputElement
  take(field.files?.[0])
  field.value = ''
}
function dropped(event: DragEvent) {
  over.value = false
  take(event.dataTransfer?.files[0])
}
const { endings } = useFileFormats()
</script>

<template>
  <main id="main" class="mx-auto w-full max-w-4xl px-5 py-6">
    <p class="text-label"><NuxtLink class="link" to="/bank">Bank</NuxtLink></p>
    <h1 class="mt-1 text-3xl">Bring questions in</h1>
    <p class="mt-2 text-soft">
      From a QTI package or item (1.2 to 3.0), a spreadsheet, CSV, a document, Markdown, or Thistle’s JSON. What would
      come is shown first, and whether it is scored as the file scores it; nothing is in the bank until you say so, and
      all of it can be taken back.
    </p>
    <label
      class="mt-4 flex cursor-pointer flex-col items-center gap-2 border border-dashed px-6 py-10 text-center focus-within:outline-2 focus-within:outline-bloom"
      :class="over ? 'border-bloom bg-bloom-tint' : 'border-rule bg-sheet'"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="dropped"
    >
      <span class="btn btn-main" aria-hidden="true">{{
        busy ? 'Reading …' : batch ? 'Choose another file' : 'Choose a file'
      }}</span>
      <span class="text-soft">or drop it here</span>
      <input
        type="file"
        class="sr-only"
        aria-label="Choose a file"
        :accept="endings"
        :disabled="busy"
        @change="chosen"
      />
    </label>
    <p class="mt-2 text-label">
      Templates:
      <template v-for="as in ['csv', 'xlsx', 'ods']" :key="as"
        ><a class="link" :href="`/api/files/template?as=${as}`">{{ as.toUpperCase() }}</a> ·
      </template>
      <a class="link" href="/api/files/schema">JSON Schema</a> ·
      <NuxtLink class="link" to="/bank/paste">type or paste questions</NuxtLink>
    </p>
    <ProblemNote v-if="!batch" class="mt-3" :words="problem" />
    <ImportList :flow="flow" />
  </main>
</template>
