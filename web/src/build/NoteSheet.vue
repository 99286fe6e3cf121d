<script setup lang="ts">
import { ref } from 'vue'

import type { BuildStep } from '../api/types'
import Choice from '../fields/Choice.vue'
import Sheet from '../Sheet.vue'
import { useBuild } from './store'
import { mostOf } from '../fields/published'

/** A word about a step: for the log, or pinned to such steps from now on. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{
  /** The step it is about; none for the whole piece. */ step?: BuildStep
}>()
const build = useBuild()
const says = ref('')
const sort = ref<'note' | 'lesson' | 'repair' | 'time'>('note')
const minutes = ref('')
const SORTS = [
  { value: 'note', title: 'for the log' },
  { value: 'lesson', title: 'a lesson: show it at such a step next time' },
  ...(props.step ? [] : [{ value: 'repair', title: 'a repair' }]),
]

function keep(): void {
  // A number's field hands over a number, or nothing.
  const typed = String(minutes.value).trim()
  const took = typed === '' ? null : Number(typed)
  build.did({
    what: 'say',
    body: {
      sort: sort.value,
      says: says.value.trim(),
      step: props.step?.key ?? '',
      copy_number: build.copy,
      minutes: took !== null && Number.isFinite(took) && took >= 0 ? took : null,
    },
  })
  open.value = false
}
</script>

<template>
  <Sheet v-model="open" wide="40rem">
    <h2>{{ step ? step.title : 'Into the log' }}</h2>
    <Choice label="Keep it" :items="SORTS" :value="sort" @choose="sort = $event as typeof sort" />
    <label class="says">
      What there is to say
      <textarea
        v-model="says"
        rows="4"
        :maxlength="mostOf('SaidIn', 'says', 'Sent')"
        autofocus
        data-note-says
      />
    </label>
    <label class="took">
      minutes it took, if you want them counted
      <input v-model="minutes" type="number" min="0" max="100000" step="1" data-note-minutes />
    </label>
    <div class="acts">
      <v-btn data-note-keep :disabled="!says.trim() && !minutes" @click="keep">Keep it</v-btn>
      <v-btn variant="text" @click="open = false">Leave it</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
.says,
.took {
  display: grid;
  gap: 0.3rem;
}
textarea,
input {
  font: inherit;
  font-size: 1.2rem;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  padding: 8px;
}
.took {
  grid-template-columns: 1fr 8rem;
  align-items: center;
}
.acts {
  display: flex;
  gap: 1rem;
}
</style>
