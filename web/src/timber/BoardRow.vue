<script setup lang="ts">
import { computed } from 'vue'

import type { StockOut, WoodOut } from '../api/types'
import { corners, outlineOf, roomOf } from './stock'

/** A board with the blanks that are cut from it, each named where there is room. */
type Cut = NonNullable<WoodOut['layout']>['boards'][number]
const props = defineProps<{
  /** The board. */
  stock: StockOut
  /** Its blanks and what is left of it. */
  cut: Cut
  /** Pixels to a millimetre. */
  scale: number
  /** Key of the need to light up; none by default. */
  lit?: string
}>()
const room = computed(() => roomOf(outlineOf(props.stock.item)))
const pad = computed(() => 2 / props.scale)
const box = (x: number, y: number, w: number, h: number): number[][] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
]
</script>

<template>
  <svg
    :viewBox="`${-pad} ${-room.height - pad} ${room.width + 2 * pad} ${room.height + 2 * pad}`"
    :width="(room.width + 2 * pad) * scale"
    :height="(room.height + 2 * pad) * scale"
    role="img"
    :aria-label="`${stock.item.name} with its blanks`"
  >
    <polygon :points="corners(outlineOf(stock.item))" class="wood" />
    <polygon
      v-for="(rest, k) in cut.left"
      :key="`l${k}`"
      :points="corners(box(rest.x, rest.y, rest.length, rest.width))"
      class="left"
    />
    <g v-for="(blank, k) in cut.blanks" :key="k">
      <polygon
        :points="corners(box(blank.x, blank.y, blank.length, blank.width))"
        class="taken"
        :class="{ lit: lit === blank.key }"
      />
      <text
        v-if="blank.name.length * 6.4 < blank.length * scale && blank.width * scale > 12"
        :x="blank.x + blank.length / 2"
        :y="-(blank.y + blank.width / 2)"
        :font-size="12.5 / scale"
        text-anchor="middle"
        dominant-baseline="central"
      >
        {{ blank.name }}
      </text>
    </g>
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
text {
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--leg);
  stroke-width: 4px;
  vector-effect: non-scaling-stroke;
}
</style>
