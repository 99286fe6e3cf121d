<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import type { Handle, Shape, View } from '../api/types'
import { close } from '../fields/fractions'
import { mmPerPixel, points, stretched, type Underlay, viewBox } from './geometry'

const props = withDefaults(
  defineProps<{
    /** The drawing, mm, y up. */
    view: View
    /** Part to light up, such as "leg.2"; none by default. */
    lit?: string
    /** Parts to ring with a caution; none by default. */
    warned?: string[]
    /** Whether its handles can be dragged; no by default. */
    live?: boolean
    /** Whether something is held, here or in another drawing of it: the frame stays; no by default. */
    still?: boolean
    /** Size of the figures written on it, px; 13 by default. */
    letter?: number
    /** A picture laid under it; none by default. */
    under?: Underlay | null
  }>(),
  { lit: '', warned: () => [], live: false, still: false, letter: 13, under: null },
)
const emit = defineEmits<{
  /** A handle is at a place of the drawing, mm; `final` when it is let go. */
  drag: [handle: Handle, to: [number, number], final: boolean]
  /** The pointer is over a part, or over none. */
  point: [part: string]
}>()

const svg = ref<SVGSVGElement>()
const { width, height } = useElementSize(svg)
const held = ref<Handle | null>(null)
const heldBox = ref<View['box'] | null>(null)
/** The frame of a drawing beside the one something is held in. */
const frame = ref<View['box'] | null>(null)
watch(
  () => [props.still, props.view] as const,
  ([still, view]) => (frame.value = still ? stretched(frame.value ?? view.box, view.box) : null),
)
const box = computed(() => heldBox.value ?? frame.value ?? props.view.box)
const unit = computed(() => mmPerPixel(box.value, width.value, height.value))
/** Words are set at one size and made as small or large as the drawing: letters of a new size with every
 * frame would all have to be shaped anew. */
function set(shape: Extract<Shape, { kind: 'text' }>): string {
  const [x, y] = shape.points[0] ?? [0, 0]
  const turn = shape.turn ? ` rotate(${-shape.turn})` : ''
  return `translate(${x} ${-y}) scale(${unit.value})${turn}`
}

function place(event: PointerEvent): [number, number] {
  const matrix = svg.value?.getScreenCTM()
  if (!matrix) return [0, 0]
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  return [at.x, -at.y]
}

function take(handle: Handle, event: PointerEvent): void {
  if (!props.live) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  held.value = handle
  // The frame stands still while something is held, or it would run away under the finger.
  heldBox.value = props.view.box
}

function carry(event: PointerEvent): void {
  if (held.value) emit('drag', held.value, place(event), false)
}

function let_go(event: PointerEvent): void {
  if (!held.value) return
  emit('drag', held.value, place(event), true)
  held.value = null
  heldBox.value = null
}

const NUDGES: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

function nudge(handle: Handle, event: KeyboardEvent): void {
  const by = NUDGES[event.key]
  if (!by || !props.live) return
  event.preventDefault()
  const far = event.shiftKey ? 10 : 2
  emit('drag', handle, [handle.at[0] + by[0] * far, handle.at[1] + by[1] * far], true)
}

function lights(handle: Handle): string {
  if (handle.moves === 'member') return `member.${handle.leg}`
  return handle.moves === 'foot' || handle.moves === 'socket' ? `leg.${handle.leg}` : ''
}
const key = (handle: Handle): string => `${handle.moves}.${handle.leg}`
</script>

<template>
  <svg
    ref="svg"
    class="drawing"
    :class="{ live, held: held !== null, over: under !== null }"
    :viewBox="viewBox(box)"
    :aria-label="view.title"
    role="group"
    @pointermove="carry"
    @pointerup="let_go"
    @pointercancel="let_go"
  >
    <title>{{ view.title }}</title>
    <image
      v-if="under"
      class="under"
      :href="under.href"
      :x="under.x - under.width / 2"
      :y="-under.y - under.height / 2"
      :width="under.width"
      :height="under.height"
      :transform="`rotate(${-under.turn} ${under.x} ${-under.y})`"
      preserveAspectRatio="none"
    />
    <template v-for="(shape, index) in view.shapes" :key="index">
      <polygon
        v-if="shape.kind === 'area'"
        :points="points(shape)"
        :class="[
          shape.layer,
          { lit: shape.part && shape.part === lit, warned: warned.includes(shape.part) },
        ]"
        @pointerenter="emit('point', shape.part)"
        @pointerleave="emit('point', '')"
      />
      <polyline
        v-else-if="shape.kind === 'line'"
        :points="points(shape)"
        :class="[shape.layer, { lit: shape.part && shape.part === lit }]"
      />
      <ellipse
        v-else-if="shape.kind === 'ellipse'"
        :cx="shape.points[0]?.[0]"
        :cy="-(shape.points[0]?.[1] ?? 0)"
        :rx="shape.sizes[0]"
        :ry="shape.sizes[1]"
        :transform="`rotate(${-shape.turn} ${shape.points[0]?.[0]} ${-(shape.points[0]?.[1] ?? 0)})`"
        :class="[shape.layer, { lit: shape.part && shape.part === lit }]"
      />
      <text
        v-else-if="shape.kind === 'text'"
        :text-anchor="shape.anchor"
        :font-size="letter"
        :transform="set(shape)"
        dominant-baseline="middle"
        :class="[shape.layer, { lit: shape.part && shape.part === lit }]"
      >
        {{ close(shape.text) }}
      </text>
    </template>
    <g v-if="live">
      <g
        v-for="handle in view.handles"
        :key="key(handle)"
        class="handle"
        :class="[handle.moves, { taken: held && key(held) === key(handle) }]"
        role="button"
        tabindex="0"
        :aria-label="`Move the ${handle.label}`"
        :data-handle="key(handle)"
        @pointerdown.prevent="take(handle, $event)"
        @keydown="nudge(handle, $event)"
        @pointerenter="emit('point', lights(handle))"
        @pointerleave="emit('point', '')"
      >
        <circle class="grip" :cx="handle.at[0]" :cy="-handle.at[1]" :r="unit * 20" />
        <circle class="knob" :cx="handle.at[0]" :cy="-handle.at[1]" :r="unit * 6.5" />
      </g>
    </g>
  </svg>
</template>

<style scoped>
.drawing {
  display: block;
  width: 100%;
  height: 100%;
  touch-action: none;
  user-select: none;
  overflow: hidden;
}
.drawing * {
  vector-effect: non-scaling-stroke;
}
polygon,
polyline,
ellipse {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.1px;
  stroke-linejoin: round;
}
polyline,
ellipse {
  pointer-events: none;
}
polygon.outline {
  fill: var(--wood);
  fill-opacity: 0.72;
  stroke-width: 1.6px;
}
.over polygon.outline {
  fill-opacity: 0.12;
}
polygon.solid {
  fill: var(--wood);
  stroke-width: 1.6px;
}
polygon.leg {
  fill: var(--leg);
}
polygon.board {
  fill: var(--wood);
}
polygon.hatch_area {
  fill: var(--ink);
  fill-opacity: 0.16;
}
polyline.rope {
  stroke-width: 3px;
  stroke-dasharray: 5 1.5;
}
polygon.foot {
  fill: var(--leg);
  stroke-width: 1.4px;
}
polygon.section,
ellipse.section {
  fill: var(--wood);
  stroke-width: 1.5px;
}
ellipse.section {
  fill: var(--sheet);
}
polygon.tool {
  fill: var(--sheet);
}
polygon.tenon,
.hidden {
  stroke-dasharray: 4 3;
  stroke-opacity: 0.75;
}
polygon.cut {
  fill: var(--sheet);
  stroke: var(--cut);
  stroke-width: 1.6px;
}
polyline.cut {
  stroke: var(--cut);
  stroke-width: 2.4px;
  stroke-dasharray: 9 3;
}
polygon.waste {
  fill: var(--cut);
  fill-opacity: 0.14;
  stroke: var(--cut);
  stroke-dasharray: 2 3;
}
polygon.measured,
ellipse.measured {
  fill: var(--measured);
  fill-opacity: 0.16;
  stroke: var(--measured);
  stroke-width: 1.6px;
}
polyline.measured {
  stroke: var(--measured);
  stroke-width: 2.2px;
  stroke-dasharray: 12 3 2 3;
}
polyline.axis {
  stroke-opacity: 0.6;
  stroke-dasharray: 12 4 2 4;
  stroke-width: 0.8px;
}
polyline.sightline {
  stroke-dasharray: 16 4;
  stroke-width: 1.3px;
}
polyline.hatch {
  stroke-opacity: 0.3;
  stroke-width: 0.8px;
}
polyline.grain {
  stroke-opacity: 0.55;
}
polyline.floor {
  stroke-width: 2.2px;
}
polygon.footprint {
  stroke-dasharray: 2 4;
  pointer-events: none;
}
polyline.dimension,
polyline.scale {
  stroke-opacity: 0.75;
  stroke-width: 0.8px;
}
polyline.pointer {
  stroke: var(--cut);
  stroke-width: 2.4px;
}
polyline.warning {
  stroke: var(--caution);
  stroke-width: 3px;
}
ellipse.warning {
  stroke: var(--caution);
  stroke-width: 3px;
  stroke-dasharray: 3 3;
  pointer-events: none;
}
.lit {
  stroke: var(--measured);
  stroke-width: 2.6px;
}
polygon.lit {
  fill-opacity: 0.95;
}
.warned {
  stroke: var(--caution);
  stroke-width: 2.6px;
}
text {
  text-rendering: geometricPrecision;
  font-family: var(--mono);
  fill: var(--ink);
  stroke: var(--sheet);
  stroke-width: 3.5px;
  paint-order: stroke;
  pointer-events: none;
}
text.label {
  font-family: var(--text);
}
text.pointer {
  fill: var(--cut);
  font-weight: 700;
}
text.lit {
  fill: var(--measured);
  stroke: var(--sheet);
  stroke-width: 3.5px;
}
.handle {
  cursor: grab;
  outline-offset: 0;
}
.held .handle {
  cursor: grabbing;
}
.grip {
  fill: transparent;
}
.knob {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2px;
}
.handle.height .knob,
.handle.lean .knob,
.handle.member .knob {
  fill: var(--ink);
}
.handle:hover .knob,
.handle.taken .knob,
.handle:focus-visible .knob {
  fill: var(--measured);
  stroke: var(--measured);
}
</style>
