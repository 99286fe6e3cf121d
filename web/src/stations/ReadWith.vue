<script setup lang="ts">
import { ref } from 'vue'
import { mostOf } from '../fields/published'

/** What a reading is taken with, said before it is taken. */
const tool = defineModel<string>({ required: true })
defineProps<{
  /** Name of the field it is for. */
  name: string
  /** What the proof itself names. */
  usual: string
}>()
const open = ref(false)
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false">
    <template #activator="{ props: on }">
      <button v-bind="on" class="plain word with" type="button" :aria-label="`${name}: read with`">
        {{ tool ? `with ${tool}` : 'read with' }}
      </button>
    </template>
    <form class="behind" @submit.prevent="open = false">
      <v-text-field
        v-model="tool"
        label="Read with"
        :placeholder="usual"
        :maxlength="mostOf('Answer', 'tool', 'Sent')"
        data-read-with
        autofocus
      />
      <button class="plain word" type="submit">read with this</button>
    </form>
  </v-menu>
</template>

<style scoped>
.with {
  font-size: 0.84rem;
}
.behind {
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 0.9rem 1rem;
  display: grid;
  gap: 0.5rem;
  width: min(22rem, 92vw);
}
</style>
