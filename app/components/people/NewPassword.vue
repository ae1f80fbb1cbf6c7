<script setup lang="ts">
import { passwordFault, shortestPassword } from '~~/core/people'

/** A field for a password that is new: seen where that is wanted, and what is wrong with it told while it is written. */
const { label = 'Password', person } = defineProps<{ label?: string; person: { name: string; email: string | null } }>()
const password = defineModel<string>({ required: true })
const shown = ref(false)
const touched = ref(false)
const fault = computed(() => passwordFault(password.value, person))
const id = useId()
</script>

<template>
  <div>
    <LabelledField :label="label"
      ><input
        v-model="password"
        class="field"
        :type="shown ? 'text' : 'password'"
        autocomplete="new-password"
        required
        maxlength="500"
        :aria-describedby="id"
        @blur="touched = true"
    /></LabelledField>
    <p :id="id" class="mt-1 text-small" :class="touched && password && fault ? 'text-red' : 'text-soft'">
      {{
        password && fault && (touched || password.length >= shortestPassword)
          ? fault
          : fault
            ? `At least ${shortestPassword} characters; three or four words are easy to remember.`
            : 'Good.'
      }}
    </p>
    <TickBox v-model="shown"><span class="text-label">show it</span></TickBox>
  </div>
</template>
