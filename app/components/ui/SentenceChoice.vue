<script setup lang="ts" generic="T extends string | number | boolean | null">
/** A value within a sentence that is one of a few. */
const { options, modelValue } = defineProps<{
  modelValue: T
  options: readonly { value: T; label: string }[]
  name: string
}>()
const emit = defineEmits<{ 'update:modelValue': [T] }>()
const words = computed(() => options.find((option) => option.value === modelValue)?.label ?? String(modelValue))
const group = useId()
</script>

<template>
  <SentenceValue v-slot="{ close }" :words="words" :name="name">
    <fieldset>
      <legend class="sr-only">{{ name }}</legend>
      <label
        v-for="option in options"
        :key="String(option.value)"
        class="flex cursor-pointer items-center gap-2 px-1 py-1 hover:bg-petrol-tint"
      >
        <input
          type="radio"
          class="accent-petrol"
          :name="group"
          :checked="option.value === modelValue"
          @change="emit('update:modelValue', option.value)"
          @click="close()"
        />
        {{ option.label }}
      </label>
    </fieldset>
  </SentenceValue>
</template>
