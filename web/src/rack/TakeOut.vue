<script setup lang="ts">
import { ref } from 'vue'

import type { RackPiece } from '../api/types'

/** A piece as a file to keep: with all that was read and done, unless that is left out. */
defineProps<{ /** The piece. */ piece: RackPiece }>()
const open = ref(false)
const whole = ref(true)
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false">
    <template #activator="{ props: on }">
      <button
        v-bind="on"
        class="plain word"
        type="button"
        :aria-label="`${piece.name} as a file`"
        :data-file="piece.name"
      >
        file
      </button>
    </template>
    <div class="out">
      <v-checkbox-btn
        v-if="piece.readable"
        v-model="whole"
        inline
        label="with its readings, history and photograph"
      />
      <a
        class="on"
        :href="`/api/pieces/${piece.id}/${whole && piece.readable ? 'record' : 'file'}`"
        download
        @click="open = false"
        >take the file out</a
      >
    </div>
  </v-menu>
</template>

<style scoped>
.out {
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 0.8rem 1rem;
  display: grid;
  gap: 0.6rem;
}
.on {
  color: inherit;
  font-weight: 600;
}
</style>
