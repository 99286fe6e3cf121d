<script setup lang="ts">
import { computed } from 'vue'

import type { StockOut, WoodOut } from '../api/types'

/** What the wood of a piece weighs and does. */
const props = defineProps<{
  /** The wood of the piece. */
  wood: WoodOut
  /** The stock in its layout, by id. */
  stock: Map<string, StockOut>
}>()
const cost = computed(() =>
  [...props.stock.values()].reduce((sum, one) => sum + (one.item.cost ?? 0), 0),
)
</script>

<template>
  <section>
    <h2>What it does</h2>
    <dl>
      <dt>Weighs</dt>
      <dd>
        <span class="figures" data-weight>{{ wood.effects.weight.text }}</span>
        <span class="quiet"> in {{ [...new Set(wood.effects.woods)].join(' and ') }}</span>
      </dd>
      <template v-if="cost">
        <dt>Wood cost</dt>
        <dd class="figures">{{ cost }}</dd>
      </template>
      <dt>Air there</dt>
      <dd>leads to {{ wood.effects.home.leads_to.toFixed(1) }} %</dd>
      <template v-if="wood.effects.moves">
        <dt>Seat</dt>
        <dd data-moves>
          {{ wood.effects.moves.told.join(' ') }}
          <template v-if="Math.abs(wood.effects.moves.holes.value) >= 0.05">
            Leg holes come {{ wood.effects.moves.holes.text.replace('-', '') }}
            {{ wood.effects.moves.holes.value < 0 ? 'closer' : 'further apart' }}.
          </template>
        </dd>
      </template>
      <template v-if="wood.effects.tenons">
        <dt>Tenons</dt>
        <dd data-tenons>
          Dry to about {{ wood.effects.tenons.wanted.toFixed(0) }} %: each
          {{ wood.effects.tenons.diameter.text }} one grows
          {{ wood.effects.tenons.tighter.text }} tighter in its seat.
          {{ wood.effects.tenons.told }}
        </dd>
      </template>
    </dl>
  </section>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
dl {
  display: grid;
  grid-template-columns: 5.5rem 1fr;
  gap: 0.3rem 0.8rem;
}
dt {
  font-weight: 650;
}
</style>
