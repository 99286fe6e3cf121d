<script setup lang="ts">
import { computed } from 'vue'

import Choice from '../../fields/Choice.vue'
import { usePiece } from '../../piece/store'
import { SUPPORTS, useSupport } from '../support'
import { mostOf } from '../../fields/published'

/** What the top stands on: one support or several of any kind, and which is being looked at. */
const store = usePiece()
const { index, any } = useSupport()
const MOST = mostOf('Piece', 'supports')
const all = computed(() => store.piece?.supports ?? [])
const KINDS = Object.entries(SUPPORTS).map(([value, title]) => ({ value, title }))

function become(kind: string): void {
  if (kind !== any.value?.kind) store.restate({ what: 'support', to: kind, support: index.value })
}
function add(): void {
  store.restate({ what: 'support', to: 'staked_legs', support: all.value.length })
  index.value = all.value.length
}
function drop(): void {
  const gone = any.value?.id ?? ''
  index.value = 0
  store.restate({ what: 'away', to: gone })
}
</script>

<template>
  <section aria-label="What it stands on">
    <Choice
      v-if="all.length > 1"
      label="Stands on:"
      :items="
        all.map((support, k) => ({
          value: String(k),
          title: `${k + 1}: ${SUPPORTS[support.kind]}`,
        }))
      "
      :value="String(index)"
      @choose="index = Number($event)"
    />
    <div class="line">
      <v-select
        :label="all.length > 1 ? `Support ${index + 1} is` : 'It stands on'"
        :items="KINDS"
        :model-value="any?.kind"
        class="kind"
        data-field="support.kind"
        @update:model-value="become"
      />
      <button v-if="all.length < MOST" class="plain word" type="button" @click="add">
        another support
      </button>
      <button v-if="all.length > 1" class="plain word" type="button" @click="drop">
        take this away
      </button>
    </div>
    <p v-if="store.faults['supports']" class="wrong" role="alert">
      {{ store.faults['supports'].said }}
    </p>
  </section>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.line {
  flex-wrap: wrap;
  justify-content: flex-start;
}
.line .kind {
  flex: 1 1 100%;
}
.word {
  font-size: 0.9rem;
}
</style>
