<script setup lang="ts">
import { computed } from 'vue'

import type { Support } from '../../api/types'
import Choice from '../../fields/Choice.vue'
import OptionalForm from '../../fields/OptionalForm.vue'
import DocumentForm from '../../fields/DocumentForm.vue'
import { mostOf, wishes } from '../../fields/published'
import { usePiece } from '../../piece/store'
import { useSupport } from '../support'
import ArcForm from './ArcForm.vue'

/** The sizes of a support made of square stock, and the pieces between its leaning parts. */
const store = usePiece()
const { index, any, base } = useSupport()
type Kind = Exclude<NonNullable<Support['kind']>, 'staked_legs'>

const DOWELS = computed(() => {
  const loose = any.value && 'dowels' in any.value && any.value.dowels?.way === 'loose_tenon'
  const size = loose ? ['dowels.size', 'dowels.width'] : ['dowels.size']
  const kind = any.value?.kind
  const driven =
    !loose && (kind === 'plane_frames' || kind === 'board_sides') ? ['dowels.driven'] : []
  return ['dowels.way', ...size, 'dowels.depth', 'dowels.count', 'dowels.gap', ...driven]
})
const FORMS: Record<Kind, string[]> = {
  plane_frames: [
    'length',
    'width',
    'splay',
    'rake',
    'face',
    'thickness',
    'links',
    'link_width',
    'link_thickness',
    'allowance',
  ],
  mitred_frames: [
    'length',
    'splay',
    'frames',
    'rail',
    'leg',
    'thickness',
    'first',
    'crossing',
    'allowance',
  ],
  board_sides: ['length', 'width', 'thickness', 'splay', 'allowance'],
  slab_leg: ['end', 'splay', 'allowance'],
  aproned_legs: [
    'length',
    'width',
    'face',
    'splay',
    'rake',
    'apron',
    'arch',
    'thickness',
    'setback',
    'tenon',
    'allowance',
    'true_section',
  ],
}
const form = computed(() =>
  any.value && any.value.kind !== 'staked_legs' ? FORMS[any.value.kind] : [],
)
const doweled = computed(
  () =>
    any.value !== undefined &&
    'dowels' in any.value &&
    !('outside' in any.value && any.value.outside),
)

/** Cross-pieces of frames, rails of board sides, places on a slab leg's edges: a row of fields each. */
const between = computed(() => {
  const support = any.value
  const more = 'cross_piece' as const
  if (support?.kind === 'plane_frames')
    return {
      at: 'cross',
      name: 'Cross-pieces of a frame',
      list: support.cross ?? [],
      most: mostOf('PlaneFrames', 'cross'),
      more,
    }
  if (support?.kind === 'board_sides')
    return {
      at: 'rails',
      name: 'Rails and treads',
      list: support.rails ?? [],
      most: mostOf('BoardSides', 'rails'),
      more,
    }
  if (support?.kind === 'slab_leg')
    return {
      at: 'edges',
      name: 'Its own edges below the mitre',
      list: support.edges ?? [],
      most: mostOf('SlabLeg', 'edges'),
      more: 'edge_spot' as const,
    }
  return null
})
const LINE = ['drop', 'depth', 'thickness']
const RAIL = [...LINE, 'offset', 'lies']
const EDGE = ['down', 'front', 'back']
/** A second tread in front of the top, on short boards, with rails of its own. */
const board = computed(() => any.value?.kind === 'board_sides')
const lower = computed(() => (any.value?.kind === 'board_sides' ? any.value.lower : null))
const LOWER = [
  'lower.drop',
  'lower.board',
  'lower.thickness',
  'lower.past_front',
  'lower.past_ends',
  'lower.upper_edge.way',
]
const LOWER_EDGE = computed(() => {
  const way = lower.value?.upper_edge?.way ?? 'square'
  if (way === 'square') return LOWER
  const size = 'lower.upper_edge.size'
  return [...LOWER, size, ...(way === 'chamfer' ? ['lower.upper_edge.angle'] : [])]
})
const lowerTread = (on: boolean): void =>
  store.restate({ what: 'lower_tread', to: on ? 'on' : 'off', support: index.value })
const lowerRails = computed(() => lower.value?.rails ?? [])
const MOST_LOWER = mostOf('LowerTread', 'rails')
const addLowerRail = (): void =>
  store.restate({ what: 'lower_rail', to: 'more', support: index.value })
const dropLowerRail = (k: number): void =>
  store.set(
    `${base.value}.lower.rails`,
    lowerRails.value.filter((_, at) => at !== k),
  )
const lines = computed(() =>
  any.value?.kind === 'board_sides' ? RAIL : any.value?.kind === 'slab_leg' ? EDGE : LINE,
)

const addLine = (): void =>
  store.restate({ what: between.value?.more ?? 'cross_piece', to: 'more', support: index.value })
function dropLine(k: number): void {
  const here = between.value
  if (!here) return
  store.set(
    `${base.value}.${here.at}`,
    here.list.filter((_, at) => at !== k),
  )
}
/** A slab leg's dowels from outside, in place of those inside its mitre. */
const outside = computed(() => (any.value?.kind === 'slab_leg' ? any.value.outside : null))
const OUTSIDE = ['outside.size', 'outside.level', 'outside.plumb', 'outside.past']
const dowelOutside = (on: boolean): void =>
  store.restate({ what: 'outside', to: on ? 'on' : 'off', support: index.value })
const feet = computed(() => any.value?.kind === 'board_sides')
const cutOut = computed(() => (any.value?.kind === 'board_sides' ? any.value.cut_out : null))
/** Tapers of legs and boards. */
const tapers = computed(() => any.value !== undefined && 'taper' in any.value)
const taper = computed(() => (any.value && 'taper' in any.value ? any.value.taper : null))
const TAPER = computed(() => [
  'taper.sides',
  ...(board.value ? ['taper.narrower', 'taper.off'] : ['taper.begins', 'taper.foot']),
])
const taperLegs = (on: boolean): void =>
  store.restate({ what: 'taper', to: on ? 'on' : 'off', support: index.value })
/** Screws from below into the top, for every support that has pieces lying under it. */
const holds = computed(() => any.value !== undefined && 'held' in any.value)
const held = computed(() => (any.value && 'held' in any.value ? any.value.held : null))
const WAYS = wishes('held')
const SCREWS = [
  'held.size',
  'held.length',
  'held.bite',
  'held.head',
  'held.slant',
  'held.count',
  'held.from_ends',
  'held.moves',
]
const BUTTONS = [
  'held.groove',
  'held.deep',
  'held.drop',
  'held.wide',
  'held.bite',
  'held.count',
  'held.from_ends',
  'held.moves',
]
const hold = (way: string): void => store.restate({ what: 'held', to: way, support: index.value })
/** Splines through the top into the boards' ends. */
const splines = computed(() => (any.value?.kind === 'board_sides' ? any.value.splines : null))
const SPLINES = [
  'splines.count',
  'splines.width',
  'splines.depth',
  'splines.from_edges',
  'splines.proud',
]
const spline = (on: boolean): void =>
  store.restate({ what: 'splines', to: on ? 'on' : 'off', support: index.value })
const CUT = ['cut_out.width', 'cut_out.height']
function feetOf(on: boolean): void {
  store.set(`${base.value}.cut_out`, on ? {} : null)
}
</script>

<template>
  <section aria-label="Sizes of this support">
    <DocumentForm :base="base" :rows="form" />
    <OptionalForm
      v-if="feet"
      class="feet"
      label="two feet"
      :on="!!cutOut"
      :base="base"
      :rows="CUT"
      :across="2"
      @want="feetOf"
    />
    <OptionalForm
      v-if="tapers"
      :label="board ? 'tapered edges' : 'tapered legs'"
      :on="!!taper"
      :base="base"
      :rows="TAPER"
      data-taper
      @want="taperLegs"
    />
    <template v-if="between">
      <p class="line">
        <strong>{{ between.name }}</strong>
        <button
          v-if="between.list.length < between.most"
          class="plain word"
          type="button"
          @click="addLine"
        >
          another
        </button>
      </p>
      <div v-for="(one, k) in between.list" :key="k" class="row">
        <DocumentForm :base="`${base}.${between.at}.${k}`" :rows="lines" :across="lines.length" />
        <button
          class="plain word"
          type="button"
          :aria-label="`Take ${k + 1} away`"
          @click="dropLine(k)"
        >
          away
        </button>
        <ArcForm
          v-if="'drop' in one && one.lies !== 'flat'"
          :base="`${base}.${between.at}.${k}`"
          :on="!!one.arc"
        />
      </div>
    </template>
    <OptionalForm
      v-if="board"
      label="a lower tread in front"
      :on="!!lower"
      :base="base"
      :rows="LOWER_EDGE"
      :across="3"
      data-lower
      @want="lowerTread"
    />
    <template v-if="lower">
      <p class="line">
        <strong>Rails under the lower tread</strong>
        <button
          v-if="lowerRails.length < MOST_LOWER"
          class="plain word"
          type="button"
          @click="addLowerRail"
        >
          another
        </button>
      </p>
      <div v-for="(one, k) in lowerRails" :key="k" class="row">
        <DocumentForm :base="`${base}.lower.rails.${k}`" :rows="RAIL" :across="RAIL.length" />
        <button
          class="plain word"
          type="button"
          :aria-label="`Take rail ${k + 1} of the lower tread away`"
          @click="dropLowerRail(k)"
        >
          away
        </button>
        <ArcForm v-if="one.lies !== 'flat'" :base="`${base}.lower.rails.${k}`" :on="!!one.arc" />
      </div>
    </template>
    <DocumentForm v-if="doweled" :base="base" :rows="DOWELS" :across="4" />
    <OptionalForm
      v-if="any?.kind === 'slab_leg'"
      label="dowelled from outside"
      :on="!!outside"
      :base="base"
      :rows="OUTSIDE"
      :across="4"
      data-outside
      @want="dowelOutside"
    />
    <template v-if="holds">
      <Choice
        label="Top held by:"
        :items="WAYS"
        :value="held?.way ?? 'nothing'"
        data-held
        @choose="hold($event)"
      />
      <DocumentForm
        v-if="held"
        :base="base"
        :rows="held.way === 'buttons' ? BUTTONS : SCREWS"
        :across="4"
      />
    </template>
    <OptionalForm
      v-if="board"
      label="splines through the top"
      :on="!!splines"
      :base="base"
      :rows="SPLINES"
      :across="3"
      data-splines
      @want="spline"
    />
  </section>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.5rem;
  align-items: center;
}
.row :deep(input),
.row :deep(.v-select__selection) {
  font-size: 0.84rem;
}
.row :deep(.v-field) {
  --v-field-padding-start: 6px;
  --v-field-padding-end: 2px;
}
.row :deep(.form) {
  --least: 6.2rem;
  gap: 0.3rem;
}
.feet {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1rem;
  align-items: center;
}
.word {
  font-size: 0.9rem;
}
</style>
