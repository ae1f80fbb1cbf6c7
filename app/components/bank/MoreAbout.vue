<script setup lang="ts">
import { languageCode } from '~~/core/question/language'
import { untranslated, textsOf } from '~~/core/question/texts'
import { toolNames, type Question } from '~~/core/question/schema'

/** Hints, tools and languages of a question. */
const { question } = defineProps<{ question: Question }>()
const emit = defineEmits<{ set: [values: Partial<Question>] }>()
const language = ref('')
const other = ref('')
const texts = computed(() => [...textsOf(question)])
const languages = computed(() => Object.keys(question.translations))
const missing = computed(() => new Set(language.value ? untranslated(question, language.value) : []))
const problem = ref('')
function addLanguage() {
  const code = other.value.trim()
  problem.value = ''
  if (!languageCode.test(code) || code === question.language) {
    problem.value = 'Write another language as its code, such as nl or fr.'
    return
  }
  emit('set', { translations: { ...question.translations, [code]: question.translations[code] ?? {} } })
  language.value = code
  other.value = ''
}
const translate = (key: string, html: string) =>
  emit('set', {
    translations: {
      ...question.translations,
      [language.value]: { ...question.translations[language.value], [key]: html },
    },
  })
const labels: Record<string, string> = {
  stem: 'Question',
  right: 'Comment when right',
  wrong: 'Comment when not right',
  general: 'Comment in any case',
  text: 'Text with gaps',
}
const labelOf = (key: string) => labels[key] ?? key.replaceAll(':', ' ')
</script>

<template>
  <details>
    <summary class="small-head">
      Hints and tools{{ question.hints.length ? ` · ${question.hints.length} hints` : ''
      }}{{ question.tools.length ? ` · ${question.tools.join(', ')}` : '' }}
    </summary>
    <div class="mt-3 space-y-3">
      <div v-for="(hint, index) in question.hints" :key="index">
        <span class="label"
          >Hint {{ index + 1 }}
          <button
            type="button"
            class="link font-normal"
            @click="emit('set', { hints: question.hints.filter((_, i) => i !== index) })"
          >
            take out
          </button></span
        >
        <RichText
          slim
          :label="`Hint ${index + 1}`"
          :model-value="hint"
          :language="question.language"
          @update:model-value="emit('set', { hints: question.hints.map((each, i) => (i === index ? $event : each)) })"
        />
      </div>
      <button
        type="button"
        class="btn"
        :disabled="question.hints.length >= 5"
        @click="emit('set', { hints: [...question.hints, ''] })"
      >
        Add a hint
      </button>
      <p class="flex flex-wrap gap-4">
        <label v-for="tool in toolNames" :key="tool" class="flex items-center gap-1.5"
          ><input
            type="checkbox"
            class="accent-petrol"
            :checked="question.tools.includes(tool)"
            @change="
              emit('set', {
                tools: question.tools.includes(tool)
                  ? question.tools.filter((each) => each !== tool)
                  : [...question.tools, tool],
              })
            "
          />
          {{ tool }}</label
        >
      </p>
    </div>
  </details>
  <details>
    <summary class="small-head">
      Languages: {{ [question.language, ...languages].map(languageName).join(', ') }}
    </summary>
    <div class="mt-3 space-y-3">
      <div class="flex flex-wrap items-end gap-3">
        <label class="text-note text-soft"
          >Written in<input
            class="field block w-24! py-1"
            maxlength="20"
            :value="question.language"
            @change="emit('set', { language: ($event.target as HTMLInputElement).value.trim() || 'en' })"
        /></label>
        <label v-if="languages.length" class="text-note text-soft"
          >Translate into<select v-model="language" class="field block py-1">
            <option value="">choose …</option>
            <option v-for="code in languages" :key="code" :value="code">
              {{ languageName(code)
              }}{{
                untranslated(question, code).length ? ` (${untranslated(question, code).length} texts missing)` : ''
              }}
            </option>
          </select></label
        >
        <form class="flex items-end gap-2" @submit.prevent="addLanguage">
          <label class="text-note text-soft"
            >Another language<input
              v-model="other"
              class="field block w-24! py-1"
              placeholder="nl"
              maxlength="20" /></label
          ><button class="btn py-1">Add</button>
        </form>
      </div>
      <ProblemNote :words="problem" />
      <template v-if="language">
        <div v-for="[key, html] in texts" :key="key">
          <span class="label"
            >{{ labelOf(key) }}<span v-if="missing.has(key)" class="ml-2 text-amber">missing</span></span
          >
          <WrittenText :html="html" class="mb-1 text-label text-soft" />
          <RichText
            slim
            :label="`${labelOf(key)} in ${languageName(language)}`"
            :language="language"
            :model-value="question.translations[language]?.[key] ?? ''"
            @update:model-value="translate(key, $event)"
          />
        </div>
      </template>
    </div>
  </details>
</template>
