<script setup lang="ts">
import { computed, ref } from 'vue'

import { usePiece } from '../../piece/store'
import { mostOf } from '../../fields/published'

/** Positions tried and left, with the reason; each can be taken up again. */
const store = usePiece()
const trials = computed(() => store.piece?.trials ?? [])
const name = ref('')
const why = ref('')

function keep(): void {
  if (!store.piece || !name.value.trim()) return
  const kept = { name: name.value.trim(), why: why.value.trim(), supports: store.piece.supports }
  store.set('trials', [...trials.value, kept])
  name.value = why.value = ''
}
function take(k: number): void {
  const trial = trials.value[k]
  if (trial) store.set('supports', trial.supports)
}
function drop(k: number): void {
  store.set(
    'trials',
    trials.value.filter((_, at) => at !== k),
  )
}
</script>

<template>
  <details class="trials" :open="trials.length > 0">
    <summary>Positions tried{{ trials.length ? ` (${trials.length})` : '' }}</summary>
    <ul>
      <li v-for="(trial, k) in trials" :key="k" data-trial>
        <span
          ><strong>{{ trial.name }}</strong> {{ trial.why }}</span
        >
        <button class="plain word" type="button" @click="take(k)">take it up again</button>
        <button
          class="plain word"
          type="button"
          :aria-label="`Forget ${trial.name}`"
          @click="drop(k)"
        >
          forget
        </button>
      </li>
    </ul>
    <form @submit.prevent="keep">
      <v-text-field
        v-model="name"
        label="Keep this, as"
        :maxlength="mostOf('Trial', 'name')"
        data-trial-name
      />
      <v-text-field
        v-model="why"
        label="Why it is left"
        :maxlength="mostOf('Trial', 'why')"
        data-trial-why
      />
      <v-btn type="submit" :disabled="!name.trim()">Keep</v-btn>
    </form>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 3px;
  font-size: 0.92rem;
}
ul {
  list-style: none;
  display: grid;
  gap: 4px;
  padding: 0.3rem 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 0.8rem;
  font-size: 0.92rem;
  align-items: baseline;
}
form {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
  gap: 0.5rem;
  align-items: center;
  padding-top: 0.4rem;
}
</style>
