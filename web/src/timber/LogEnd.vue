<script setup lang="ts">
import { computed } from 'vue'

import type { StockOut, WoodOut } from '../api/types'
import { corners } from './stock'

/** A log seen from its small end, with the sticks it gives. */
type Billets = NonNullable<WoodOut['layout']>['logs'][number]['billets'][number]
const props = defineProps<{
  /** The log. */
  stock: StockOut
  /** The sticks it gives one way. */
  billets: Billets
}>()
const radius = computed(() =>
  props.stock.item.kind === 'log' ? Number(props.stock.item.small_end) / 2 : 100,
)
const bark = computed(() =>
  props.stock.item.kind === 'log' ? Number(props.stock.item.bark ?? 0) : 0,
)
const pith = computed(() =>
  props.stock.item.kind === 'log' ? Number(props.stock.item.pith ?? 0) / 2 : 0,
)
</script>

<template>
  <svg
    :viewBox="`${-radius - 4} ${-radius - 4} ${2 * radius + 8} ${2 * radius + 8}`"
    width="170"
    height="170"
    role="img"
    :aria-label="`${stock.item.name} from its small end: ${billets.each} sticks, ${billets.way}`"
  >
    <circle :r="radius" class="bark" />
    <circle :r="radius - bark" class="wood" />
    <polygon
      v-for="(square, k) in billets.squares"
      :key="k"
      :points="corners(square)"
      class="taken"
    />
    <circle :r="pith" class="flaw" />
  </svg>
</template>

<style scoped src="./wood.css"></style>
<style scoped>
.bark {
  fill: var(--ink);
  fill-opacity: 0.45;
}
</style>
