<script setup lang="ts">
/** An edit that met a colleague's: theirs stands until one says otherwise. */
const store = useQuiz()
</script>

<template>
  <div v-if="store.asked" role="alert" class="note-look flex flex-wrap items-center gap-3 px-5">
    <span>{{ store.asked.sentence }} Theirs stands now.</span>
    <button class="btn py-1" @click="store.answer('theirs')">Leave theirs</button>
    <button class="btn py-1" @click="store.answer('mine')">Put mine in</button>
  </div>
  <p v-if="store.problem" role="alert" class="note-stop flex flex-wrap gap-3 px-5">
    {{ store.problem }} <button class="link" @click="store.say('')">Close</button>
  </p>
</template>
