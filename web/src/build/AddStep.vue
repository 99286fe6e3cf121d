<script setup lang="ts">
import { ref } from 'vue'

import type { BuildStep } from '../api/types'
import Sheet from '../Sheet.vue'
import { useBuild } from './store'
import { mostOf } from '../fields/published'

/** A step of the maker's own. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ /** The step it comes before. */ before: BuildStep }>()
const build = useBuild()
const title = ref('')
const how = ref('')
const minutes = ref('15')
const hours = ref('0')

async function add(): Promise<void> {
  const one = {
    id: '',
    title: title.value.trim(),
    do: how.value.trim(),
    minutes: Number(minutes.value) || 0,
    wait_h: Number(hours.value) || 0,
    before: props.before.key,
    after: [] as string[],
  }
  if (await build.change((own) => ({ added: [...(own.added ?? []), one] }))) open.value = false
}
</script>

<template>
  <Sheet v-model="open" wide="36rem">
    <h2>A step of your own, before: {{ before.title }}</h2>
    <label
      >what is done
      <input
        v-model="title"
        :maxlength="mostOf('OwnStep', 'title', 'Build')"
        autofocus
        data-own-title
    /></label>
    <label
      >how
      <textarea v-model="how" rows="3" :maxlength="mostOf('OwnStep', 'do', 'Build')" data-own-how />
    </label>
    <div class="two">
      <label
        >minutes <input v-model="minutes" type="number" min="0" max="6000" data-own-minutes
      /></label>
      <label
        >hours it rests <input v-model="hours" type="number" min="0" max="2000" step="0.5"
      /></label>
    </div>
    <p v-if="build.said" role="alert">{{ build.said }}</p>
    <div class="two">
      <v-btn :disabled="!title.trim()" data-own-add @click="add">Add it</v-btn>
      <v-btn variant="text" @click="open = false">Leave it</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
label {
  display: grid;
  gap: 0.2rem;
}
.two {
  display: flex;
  gap: 1rem;
}
input,
textarea {
  font: inherit;
  font-size: 1.1rem;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  padding: 8px;
}
</style>
