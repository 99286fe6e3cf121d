<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { SlabPart, StockOut } from '../api/types'
import { corners, outlineOf, roomOf } from './stock'

/** A slab with the parts laid on it: each is dragged and turned, the rest follows. */
const props = defineProps<{
  /** The slab. */
  stock: StockOut
  /** The parts on it. */
  parts: SlabPart[]
  /** What is left of it, rings of corners, mm. */
  left: number[][][]
  /** Middles of keys across its splits: x, y, and the way across, degrees; with a key's length and widths. */
  keys: { at: number[]; length: number; end: number; waist: number }[]
  /** Which parts cannot lie as they do, by key and number. */
  wrong: string[]
  /** Whether its parts can be moved. */
  live: boolean
  /** The photograph's address; empty for none. */
  photo: string
}>()
const emit = defineEmits<{
  /** A part is carried: by so much along, across (mm) and round (degrees); `final` when it is let go. */
  move: [part: SlabPart, by: [number, number, number], final: boolean]
}>()
const svg = ref<SVGSVGElement>()
const { width } = useElementSize(svg)
const outline = computed(() => outlineOf(props.stock.item))
const room = computed(() => roomOf(outline.value))
const box = computed(() => {
  const { x, y, width: w, height: h } = room.value
  return `${x - 30} ${-y - h - 30} ${w + 60} ${h + 60}`
})
const unit = computed(() => (room.value.width + 60) / Math.max(width.value, 300))
const name = (part: SlabPart): string => `${part.key} ${part.number}`

const held = ref<{ part: SlabPart; from: [number, number]; turning: boolean } | null>(null)
const by = ref<[number, number, number]>([0, 0, 0])
function place(event: PointerEvent): [number, number] {
  const matrix = svg.value?.getScreenCTM()
  if (!matrix) return [0, 0]
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  return [at.x, -at.y]
}
function take(part: SlabPart, turning: boolean, event: PointerEvent): void {
  if (!props.live) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  held.value = { part, from: place(event), turning }
  by.value = [0, 0, 0]
}
function carry(event: PointerEvent): void {
  const now = held.value
  if (!now) return
  const [x, y] = place(event)
  if (now.turning) {
    const angle = (p: [number, number]): number => Math.atan2(p[1] - now.part.y, p[0] - now.part.x)
    by.value = [0, 0, ((angle([x, y]) - angle(now.from)) * 180) / Math.PI]
  } else by.value = [x - now.from[0], y - now.from[1], 0]
  emit('move', now.part, by.value, false)
}
function drop(): void {
  const now = held.value
  if (!now) return
  held.value = null
  if (by.value.some((one) => Math.abs(one) > 0.05)) emit('move', now.part, by.value, true)
  by.value = [0, 0, 0]
}
const NUDGES: Record<string, [number, number, number]> = {
  ArrowLeft: [-1, 0, 0],
  ArrowRight: [1, 0, 0],
  ArrowUp: [0, 1, 0],
  ArrowDown: [0, -1, 0],
  PageUp: [0, 0, 0.5],
  PageDown: [0, 0, -0.5],
}
function nudge(part: SlabPart, event: KeyboardEvent): void {
  const step = NUDGES[event.key]
  if (!step || !props.live) return
  event.preventDefault()
  const far = event.shiftKey ? 10 : 2
  emit('move', part, [step[0] * far, step[1] * far, step[2] * far], true)
}
/** Where a part is drawn while it is carried: its own place, moved in this browser at once. */
function carried(part: SlabPart): string {
  if (held.value?.part !== part) return ''
  const [x, y, turn] = by.value
  return `translate(${x} ${-y}) rotate(${-turn} ${part.x} ${-part.y})`
}
const grip = (part: SlabPart): [number, number] => {
  const r = roomOf(part.outline)
  const t = (part.turn * Math.PI) / 180
  const far = Math.max(r.width, r.height) / 2 - 14 * unit.value
  return [part.x + far * Math.cos(t), part.y + far * Math.sin(t)]
}
const keyShape = (key: (typeof props.keys)[number]): string => {
  const [a, b, c] = [key.length / 2, key.end / 2, key.waist / 2]
  return `${-a},${-b} 0,${-c} ${a},${-b} ${a},${b} 0,${c} ${-a},${b}`
}
const photoBox = computed(() => {
  const item = props.stock.item
  const kept = props.stock.photo
  if (!props.photo || item.kind !== 'slab' || !item.photo || !kept) return null
  const wide = Number(item.photo.width)
  const high = (wide * kept.height) / kept.width
  const [x, y] = [Number(item.photo.x ?? 0), Number(item.photo.y ?? 0)]
  return {
    x: x - wide / 2,
    y: -y - high / 2,
    width: wide,
    height: high,
    turn: item.photo.turn ?? 0,
  }
})
</script>

<template>
  <svg
    ref="svg"
    class="slab"
    :viewBox="box"
    role="group"
    :aria-label="`${stock.item.name}, from above`"
    :data-slab="stock.item.name"
    @pointermove="carry"
    @pointerup="drop"
    @pointercancel="drop"
  >
    <image
      v-if="photoBox"
      :href="photo"
      :x="photoBox.x"
      :y="photoBox.y"
      :width="photoBox.width"
      :height="photoBox.height"
      preserveAspectRatio="none"
      class="under"
    />
    <polygon :points="corners(outline)" class="wood" :class="{ over: photoBox }" />
    <polygon
      v-for="(ring, k) in left"
      :key="`l${k}`"
      :points="corners(ring)"
      class="left"
      :class="{ over: photoBox }"
    />
    <g v-for="part in parts" :key="name(part)" :transform="carried(part)">
      <polygon
        :points="corners(part.outline)"
        class="taken"
        :class="{ wrong: wrong.includes(name(part)), live }"
        :tabindex="live ? 0 : undefined"
        role="button"
        :aria-label="`${part.name}: arrows move it, page up and page down turn it`"
        :data-part="name(part)"
        @pointerdown="take(part, false, $event)"
        @keydown="nudge(part, $event)"
      />
      <line
        v-for="([a, b], k) in part.seams"
        :key="`s${k}`"
        :x1="a?.[0]"
        :y1="-(a?.[1] ?? 0)"
        :x2="b?.[0]"
        :y2="-(b?.[1] ?? 0)"
        class="seam"
      />
      <circle
        v-for="([x, y, r], k) in part.holes"
        :key="`h${k}`"
        :cx="x"
        :cy="-(y ?? 0)"
        :r="r"
        class="hole"
      />
      <text
        v-if="part.name.length * 7 * unit < roomOf(part.outline).width"
        :x="part.x"
        :y="-part.y"
        :font-size="15 * unit"
        text-anchor="middle"
      >
        {{ part.name }}
      </text>
      <circle
        v-if="live"
        :cx="grip(part)[0]"
        :cy="-grip(part)[1]"
        :r="9 * unit"
        class="grip"
        aria-hidden="true"
        :data-turn="name(part)"
        @pointerdown.stop="take(part, true, $event)"
      />
    </g>
    <polygon
      v-for="(flaw, k) in stock.flaws"
      :key="`f${k}`"
      :points="corners(flaw.corners)"
      class="flaw"
      :class="flaw.name"
    />
    <polygon
      v-for="(key, k) in keys"
      :key="`k${k}`"
      :points="keyShape(key)"
      class="key"
      data-key
      :transform="`translate(${key.at[0]} ${-(key.at[1] ?? 0)}) rotate(${-(key.at[2] ?? 0)})`"
    />
  </svg>
</template>

<style scoped src="./wood.css"></style>
<style scoped>
.slab {
  width: 100%;
  max-height: 46vh;
  touch-action: none;
  display: block;
}
.over {
  fill-opacity: 0.15;
}
.taken.live {
  cursor: move;
}
.under {
  opacity: 0.9;
}
.flaw {
  pointer-events: none;
}
.hole {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.4px;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.seam {
  stroke: var(--cut);
  stroke-width: 2px;
  stroke-dasharray: 8 4;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.key {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.6px;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.grip {
  fill: var(--paper);
  stroke: var(--measured);
  stroke-width: 2px;
  vector-effect: non-scaling-stroke;
  cursor: grab;
}
text {
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--leg);
  stroke-width: 4px;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
</style>
