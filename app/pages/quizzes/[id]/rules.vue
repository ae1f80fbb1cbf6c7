<script setup lang="ts">
/** The day line, the rules as sentences, what was found and what students are told. */
const store = useQuiz()
</script>

<template>
  <div>
    <DayLine />
    <RuleSets class="mt-4" />
    <div class="mt-5 grid gap-x-8 gap-y-8 lg:grid-cols-[1fr_1fr_19rem]">
      <div class="space-y-8">
        <RuleChapter v-slot="{ empty }" chapter="who">
          <p v-if="empty || !store.quiz?.rules.windows.length" class="text-soft">Nobody can sit it yet.</p>
          <WhoSits />
          <div class="flex flex-wrap gap-2"><AddWindow /><LinkNote /><AddNeed /></div>
        </RuleChapter>
        <RuleChapter chapter="sitting"><WallPasswords /></RuleChapter>
      </div>
      <div class="space-y-8">
        <RuleChapter chapter="marks" />
        <RuleChapter chapter="release" />
        <RuleChapter chapter="page" />
        <RuleChapter chapter="tell"><LetterPreview /></RuleChapter>
      </div>
      <aside class="space-y-6">
        <section>
          <h2 class="border-b border-ink pb-1.5 text-xl">Checks</h2>
          <ChecksList class="mt-3 text-label" :checks="store.checks" />
        </section>
        <WhyNote />
        <ToldNote />
        <TeachersOfQuiz />
      </aside>
    </div>
  </div>
</template>
