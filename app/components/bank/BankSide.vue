<script setup lang="ts">
import type { SavedSearch } from '~~/server/domain/bank/finding/saved-searches'
import type { FolderEntry } from '~/composables/question-search'

/** What stands beside the list of the bank: folders, saved searches, and the ways to everything around it. */
defineProps<{ folders: FolderEntry[]; chosen: string | null; saved: SavedSearch[] }>()
const emit = defineEmits<{
  choose: [folder: string | null]
  changed: []
  take: [SavedSearch['query']]
  drop: [SavedSearch]
}>()
</script>

<template>
  <div class="space-y-5">
    <FolderTree :folders="folders" :chosen="chosen" @choose="emit('choose', $event)" @changed="emit('changed')" />
    <section v-if="saved.length">
      <h2 class="small-head">Saved searches</h2>
      <ul>
        <li v-for="each in saved" :key="each.id" class="flex items-center">
          <button
            type="button"
            class="min-w-0 grow truncate rounded px-2 py-1 text-left hover:bg-petrol-tint"
            @click="emit('take', each.query)"
          >
            {{ each.name }}</button><button
            type="button"
            class="btn btn-quiet px-1.5"
            :aria-label="`Do not keep the search ${each.name}`"
            @click="emit('drop', each)"
          >
            ×
          </button>
        </li>
      </ul>
    </section>
    <p class="flex flex-col gap-1 text-label">
      <NuxtLink class="link" to="/bank/import">Bring questions in</NuxtLink
      ><NuxtLink class="link" to="/bank/paste">Write in plain text</NuxtLink
      ><NuxtLink class="link" to="/bank/stimuli">Stimuli</NuxtLink
      ><NuxtLink class="link" to="/bank/objectives">Objectives</NuxtLink
      ><NuxtLink class="link" to="/bank/words">Levels and fields</NuxtLink
      ><NuxtLink class="link" to="/bank/outside">Banks of others</NuxtLink
      ><NuxtLink class="link" to="/bank/near">Near-duplicates</NuxtLink>
    </p>
  </div>
</template>
