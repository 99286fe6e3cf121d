<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Fault } from '../api/types'
import Choice from '../fields/Choice.vue'
import { labelOf } from '../fields/published'
import type { At, Draft } from './draft'
import { corners } from './stock'
import TextBox from './TextBox.vue'

/** A slab's outline and its flaws, drawn over its photograph where there is one. */
const props = defineProps<{
  /** The photograph's address; empty for none. */
  photo: string
  /** Its height over its width. */
  ratio: number
  /** Every kind of flaw, with its name. */
  kinds: Record<string, string>
  /** What is wrong, by the path in the document. */
  faults: Record<string, Fault>
}>()
/** The slab as it is drawn. */
const draft = defineModel<Draft>('draft', { required: true })
const svg = ref<SVGSVGElement>()
const { width } = useElementSize(svg)
const tool = ref('edge')
const TOOLS = computed(() => [
  { value: 'edge', title: 'its edge' },
  ...Object.entries(props.kinds).map(([value, title]) => ({ value, title })),
  { value: 'thick', title: 'how thick it is here' },
])
const LINES = ['split', 'pith', 'bark', 'sapwood', 'tear_out']
/** The line that is being drawn, by its place among the flaws; -1 for none. */
const drawing = ref(-1)
const held = ref<At | null>(null)

const all = computed(() => {
  const points = [...draft.value.outline]
  const p = draft.value.photo
  if (p && props.photo) {
    const high = p.width * props.ratio
    points.push(
      { x: p.x - p.width / 2, y: p.y - high / 2 },
      { x: p.x + p.width / 2, y: p.y + high / 2 },
    )
  }
  return points
})
const frozen = ref('')
const box = computed(() => {
  const xs = all.value.map((p) => p.x)
  const ys = all.value.map((p) => p.y)
  const pad = 40
  const [x, y] = [Math.min(...xs) - pad, Math.min(...ys) - pad]
  const [w, h] = [Math.max(...xs) - x + pad, Math.max(...ys) - y + pad]
  return `${x} ${-y - h} ${w} ${h}`
})
const shown = computed(() => frozen.value || box.value)
const unit = computed(() => Number(shown.value.split(' ')[2]) / Math.max(width.value, 300))

function place(event: MouseEvent): At {
  const matrix = svg.value?.getScreenCTM()
  if (!matrix) return { x: 0, y: 0 }
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  return { x: Math.round(at.x), y: Math.round(-at.y) }
}

function press(event: MouseEvent): void {
  const at = place(event)
  if (tool.value === 'edge') {
    addCorner(at)
    return
  }
  if (tool.value === 'thick') {
    draft.value.thick.push({ at, thickness: draft.value.texts['thickness'] ?? '' })
    return
  }
  const line = draft.value.spots[drawing.value]
  if (line) line.points.push(at)
  else {
    const across = LINES.includes(tool.value) ? '6' : '40'
    draft.value.spots.push({ id: '', kind: tool.value, points: [at], across, area: false })
    drawing.value = LINES.includes(tool.value) ? draft.value.spots.length - 1 : -1
  }
}
/** A new corner goes between the two its place is nearest to. */
function addCorner(at: At): void {
  const ring = draft.value.outline
  let best = ring.length
  let least = Infinity
  ring.forEach((a, k) => {
    const b = ring[(k + 1) % ring.length] ?? a
    const far = distance(at, a, b)
    if (far < least) [least, best] = [far, k + 1]
  })
  ring.splice(best, 0, at)
}
function distance(p: At, a: At, b: At): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const long = dx * dx + dy * dy
  const t = long ? Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / long)) : 0
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy)
}

function take(point: At, event: PointerEvent): void {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  held.value = point
  frozen.value = box.value
}
function carry(event: PointerEvent): void {
  if (!held.value) return
  Object.assign(held.value, place(event))
}
function drop(): void {
  held.value = null
  frozen.value = ''
}
const NUDGES: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}
function nudge(point: At, from: At[], least: number, event: KeyboardEvent): void {
  if ((event.key === 'Delete' || event.key === 'Backspace') && from.length > least) {
    from.splice(from.indexOf(point), 1)
    event.preventDefault()
    return
  }
  const by = NUDGES[event.key]
  if (!by) return
  event.preventDefault()
  const far = event.shiftKey ? 10 : 2
  point.x += by[0] * far
  point.y += by[1] * far
}
function choose(value: string): void {
  tool.value = value
  drawing.value = -1
}
function off(k: number): void {
  draft.value.spots.splice(k, 1)
  drawing.value = -1
}
const round = (value: number): string => String(Math.round(value))
</script>

<template>
  <div class="slab">
    <Choice label="Draw" :items="TOOLS" :value="tool" @choose="choose" />
    <p class="quiet small">
      {{
        tool === 'edge'
          ? 'Press beside the edge for another corner; drag corners onto the wood’s edge. Delete takes one away.'
          : drawing >= 0
            ? 'Press along it for each further point.'
            : 'Press where it is; a split or the pith is a line of several points.'
      }}
      <button
        v-if="drawing >= 0"
        class="plain word"
        type="button"
        data-line-done
        @click="drawing = -1"
      >
        that is all of it
      </button>
    </p>
    <svg
      ref="svg"
      :viewBox="shown"
      role="group"
      aria-label="The slab from above"
      data-slab-drawing
      @click.self="press"
      @pointermove="carry"
      @pointerup="drop"
      @pointercancel="drop"
    >
      <image
        v-if="photo && draft.photo"
        :href="photo"
        :x="draft.photo.x - draft.photo.width / 2"
        :y="-draft.photo.y - (draft.photo.width * ratio) / 2"
        :width="draft.photo.width"
        :height="draft.photo.width * ratio"
        :transform="`rotate(${-draft.photo.turn} ${draft.photo.x} ${-draft.photo.y})`"
        preserveAspectRatio="none"
        @click="press"
      />
      <polygon
        :points="corners(draft.outline.map((p) => [p.x, p.y]))"
        class="wood"
        :class="{ over: photo && draft.photo }"
        @click="press"
      />
      <template v-for="(spot, k) in draft.spots" :key="k">
        <circle
          v-if="spot.points.length === 1"
          :cx="spot.points[0]?.x"
          :cy="-(spot.points[0]?.y ?? 0)"
          :r="Math.max(Number(spot.across) || 20, 4 * unit) / 2"
          class="flaw"
          :class="spot.kind"
        />
        <polyline
          v-else
          :points="corners(spot.points.map((p) => [p.x, p.y]))"
          class="line"
          :class="spot.kind"
          :stroke-width="Math.max(Number(spot.across) || 4, 2 * unit)"
        />
        <circle
          v-for="(point, j) in spot.points"
          :key="`${k}.${j}`"
          :cx="point.x"
          :cy="-point.y"
          :r="7 * unit"
          class="handle"
          tabindex="0"
          role="button"
          :aria-label="`${kinds[spot.kind] ?? spot.kind} ${k + 1}, point ${j + 1}`"
          @pointerdown="take(point, $event)"
          @keydown="nudge(point, spot.points, 1, $event)"
        />
      </template>
      <g v-for="(one, k) in draft.thick" :key="`t${k}`">
        <circle
          :cx="one.at.x"
          :cy="-one.at.y"
          :r="7 * unit"
          class="handle thick"
          tabindex="0"
          role="button"
          :aria-label="`thickness ${k + 1}`"
          @pointerdown="take(one.at, $event)"
          @keydown="nudge(one.at, [one.at], 1, $event)"
        />
        <text :x="one.at.x + 11 * unit" :y="-one.at.y" :font-size="14 * unit">
          {{ one.thickness }}
        </text>
      </g>
      <circle
        v-for="(point, k) in draft.outline"
        :key="`e${k}`"
        :cx="point.x"
        :cy="-point.y"
        :r="8 * unit"
        class="handle edge"
        tabindex="0"
        role="button"
        :aria-label="`corner ${k + 1}`"
        :data-corner="k"
        @pointerdown="take(point, $event)"
        @keydown="nudge(point, draft.outline, 3, $event)"
      />
    </svg>
    <p v-if="faults['item.outline']" class="wrong" role="alert">
      {{ faults['item.outline'].said }}
    </p>
    <div v-if="draft.photo && photo" class="fields">
      <TextBox
        :model-value="round(draft.photo.width)"
        :label="labelOf('Photo', 'width', 'Pile')"
        figures
        @update:model-value="draft.photo.width = Number($event) || draft.photo.width"
      />
    </div>
    <ul v-if="draft.thick.length" class="spots" aria-label="Thickness at places">
      <li v-for="(one, k) in draft.thick" :key="k" :data-thick="k">
        <TextBox
          v-model="one.thickness"
          :label="`thick at place ${k + 1}`"
          figures
          :fault="faults[`item.thick.${k}.thickness`]"
        />
        <button class="plain word" type="button" @click="draft.thick.splice(k, 1)">off</button>
      </li>
    </ul>
    <ul v-if="draft.spots.length" class="spots" aria-label="Flaws">
      <li v-for="(spot, k) in draft.spots" :key="k" :data-spot="k">
        <span>{{ kinds[spot.kind] ?? spot.kind }}</span>
        <TextBox
          v-model="spot.across"
          :label="spot.points.length > 1 ? 'wide' : 'across'"
          figures
          :fault="faults[`item.spots.${k}.across`]"
        />
        <button class="plain word" type="button" @click="off(k)">off</button>
        <span v-if="faults[`item.spots.${k}.points`]" class="wrong" role="alert">
          {{ faults[`item.spots.${k}.points`]?.said }}
        </span>
      </li>
    </ul>
  </div>
</template>

<style scoped src="./wood.css"></style>
<style scoped>
.slab {
  display: grid;
  gap: 0.4rem;
}
svg {
  width: 100%;
  max-height: 62vh;
  touch-action: none;
  background: var(--sheet);
  cursor: crosshair;
}
.wood.over {
  fill-opacity: 0.12;
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-opacity: 0.72;
  stroke-linecap: round;
  pointer-events: none;
}
.flaw {
  pointer-events: none;
}
.handle {
  fill: var(--paper);
  stroke: var(--cut);
  stroke-width: 2px;
  vector-effect: non-scaling-stroke;
  cursor: move;
}
.handle.thick {
  stroke: var(--ink);
  stroke-dasharray: 3 2;
}
text {
  fill: var(--ink);
  pointer-events: none;
}
.handle.edge {
  stroke: var(--measured);
}
.spots {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.6rem;
}
.spots li {
  display: flex;
  gap: 0.5rem;
  align-items: end;
}
.spots :deep(input) {
  width: 5rem;
}
.small {
  font-size: 0.88rem;
}
.wrong {
  color: var(--cut);
  font-weight: 600;
}
.fields {
  max-width: 18rem;
}
</style>
