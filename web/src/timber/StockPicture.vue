<script setup lang="ts">
import { computed } from 'vue'

import type { StockOut } from '../api/types'
import { corners, outlineOf, roomOf } from './stock'

/** One piece of wood from above: its flaws, what of it is spoken for, what will be left. */
const props = defineProps<{
  /** The piece of wood. */
  stock: StockOut
  /** Pixels to a millimetre: the same for all that lie together. */
  scale: number
}>()
const outline = computed(() => outlineOf(props.stock.item))
const room = computed(() => roomOf(outline.value))
const pad = computed(() => 3 / props.scale)
const box = computed(() => {
  const { x, y, width, height } = room.value
  const p = pad.value
  return `${x - p} ${-y - height - p} ${width + 2 * p} ${height + 2 * p}`
})
</script>

<template>
  <svg
    class="stock"
    :class="[stock.item.kind, { free: !stock.reserved_for }]"
    :viewBox="box"
    :width="(room.width + 2 * pad) * scale"
    :height="(room.height + 2 * pad) * scale"
    aria-hidden="true"
  >
    <polygon :points="corners(outline)" class="wood" />
    <polygon v-for="(ring, k) in stock.left" :key="`l${k}`" :points="corners(ring)" class="left" />
    <polygon
      v-for="(part, k) in stock.taken"
      :key="`t${k}`"
      :points="corners(part.corners)"
      class="taken"
    />
    <polygon
      v-for="(flaw, k) in stock.flaws"
      :key="`f${k}`"
      :points="corners(flaw.corners)"
      class="flaw"
      :class="flaw.name"
    />
  </svg>
</template>

<style scoped src="./wood.css"></style>
<style scoped>
svg {
  display: block;
  max-width: 100%;
}
</style>
