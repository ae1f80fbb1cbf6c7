<script setup lang="ts">
import type { Question } from '~~/core/question'
import { editors } from './kinds'

/** What the kind of a question adds to its stem: options, keys, gaps, regions, rubrics. */
const { question } = defineProps<{ question: Question }>()
const emit = defineEmits<{ 'update:body': [object] }>()
const setBody = (values: object) => emit('update:body', { ...question.body, ...values })
</script>

<template>
  <component :is="editors[question.kind]" :body="question.body" :kind="question.kind" @update:body="setBody" />
</template>
