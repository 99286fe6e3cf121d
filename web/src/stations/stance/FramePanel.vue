<script setup lang="ts">
import { computed } from 'vue'

import type { Support } from '../../api/types'
import Choice from '../../fields/Choice.vue'
import OptionalForm from '../../fields/OptionalForm.vue'
import PieceForm from '../../fields/PieceForm.vue'
import { choice, count, flag, type Row, typed } from '../../fields/rows'
import { usePiece } from '../../piece/store'
import { useSupport } from '../support'
import ArcForm from './ArcForm.vue'

/** The sizes of a support made of square stock, and the pieces between its leaning parts. */
const store = usePiece()
const { index, any, base } = useSupport()
type Kind = Exclude<NonNullable<Support['kind']>, 'staked_legs'>

const DOWELS: Row[] = [
  choice('dowels.way', 'Joined by', [
    ['dowel', 'dowels'],
    ['loose_tenon', 'loose tenons'],
  ]),
  typed('dowels.size', 'Thick'),
  typed('dowels.depth', 'Deep'),
  count('dowels.count', 'In a joint'),
]
const FORMS: Record<Kind, Row[]> = {
  plane_frames: [
    typed('length', 'Over the legs'),
    typed('width', 'Over the frames'),
    typed('splay', 'Legs splay'),
    typed('rake', 'Frames rake'),
    typed('face', 'Leg, wide'),
    typed('thickness', 'Frame, thick'),
    count('links', 'Links'),
    typed('link_width', 'Link, wide'),
    typed('link_thickness', 'Link, thick'),
    typed('allowance', 'Trim allowance'),
  ],
  mitred_frames: [
    typed('length', 'Over the corners'),
    typed('splay', 'Splay'),
    choice('frames', 'Frames', [
      [1, 'one'],
      [2, 'two, crossing'],
    ]),
    typed('rail', 'Rail, deep'),
    typed('leg', 'Leg, wide'),
    typed('thickness', 'Thick'),
    typed('first', 'First one at'),
    typed('crossing', 'They cross at'),
    typed('allowance', 'Trim allowance'),
  ],
  board_sides: [
    typed('length', 'Over the sides'),
    typed('width', 'Boards, wide'),
    typed('thickness', 'Boards, thick'),
    typed('splay', 'Splay'),
    typed('allowance', 'Trim allowance'),
  ],
  slab_leg: [
    choice('end', 'At the', [
      ['left', 'left end'],
      ['right', 'right end'],
    ]),
    typed('splay', 'Splay'),
    typed('allowance', 'Trim allowance'),
  ],
  aproned_legs: [
    typed('length', 'Over the legs, long'),
    typed('width', 'Over the legs, wide'),
    typed('face', 'Leg'),
    typed('splay', 'Splay'),
    typed('rake', 'Rake'),
    typed('apron', 'Apron, high'),
    typed('arch', 'Arch, rises'),
    typed('thickness', 'Apron, thick'),
    typed('setback', 'Apron set back'),
    typed('tenon', 'Tenon, long'),
    typed('allowance', 'Trim allowance'),
    flag('true_section', 'legs planed to the aprons'),
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
      most: 4,
      more,
    }
  if (support?.kind === 'board_sides')
    return { at: 'rails', name: 'Rails and treads', list: support.rails ?? [], most: 6, more }
  if (support?.kind === 'slab_leg')
    return {
      at: 'edges',
      name: 'Its own edges below the mitre',
      list: support.edges ?? [],
      most: 12,
      more: 'edge_spot' as const,
    }
  return null
})
const LINE: Row[] = [typed('drop', 'Drop'), typed('depth', 'Deep'), typed('thickness', 'Thick')]
const RAIL: Row[] = [
  ...LINE,
  typed('offset', 'Back'),
  choice('lies', 'Lies', [
    ['upright', 'edge'],
    ['flat', 'flat'],
  ]),
]
const EDGE: Row[] = [
  typed('down', 'Down'),
  typed('front', 'To the front'),
  typed('back', 'To the back'),
]
/** A second tread in front of the top, on short boards, with rails of its own. */
const board = computed(() => any.value?.kind === 'board_sides')
const lower = computed(() => (any.value?.kind === 'board_sides' ? any.value.lower : null))
const LOWER: Row[] = [
  typed('lower.drop', 'Below the top'),
  typed('lower.board', 'Board, wide'),
  typed('lower.thickness', 'Thick'),
  typed('lower.past_front', 'Past in front'),
  typed('lower.past_ends', 'Past the ends'),
  choice('lower.upper_edge.way', 'Its edge', [
    ['square', 'square'],
    ['round_over', 'rounded over'],
    ['chamfer', 'bevelled'],
  ]),
]
const LOWER_EDGE = computed<Row[]>(() => {
  const way = lower.value?.upper_edge?.way ?? 'square'
  const size = typed('lower.upper_edge.size', way === 'chamfer' ? 'Bevel, wide' : 'Radius')
  const slope = typed('lower.upper_edge.angle', 'Bevel, slope')
  return way === 'square' ? LOWER : [...LOWER, size, ...(way === 'chamfer' ? [slope] : [])]
})
const lowerTread = (on: boolean): void =>
  store.restate({ what: 'lower_tread', to: on ? 'on' : 'off', support: index.value })
const lowerRails = computed(() => lower.value?.rails ?? [])
function addLowerRail(): void {
  const last = lowerRails.value.at(-1)
  store.set(`${base.value}.lower.rails`, [...lowerRails.value, last ? { ...last } : {}])
}
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
const OUTSIDE: Row[] = [
  typed('outside.size', 'Thick'),
  count('outside.level', 'Level'),
  count('outside.plumb', 'Plumb'),
  typed('outside.past', 'Past mitre'),
]
const dowelOutside = (on: boolean): void =>
  store.restate({ what: 'outside', to: on ? 'on' : 'off', support: index.value })
const feet = computed(() => any.value?.kind === 'board_sides')
const cutOut = computed(() => (any.value?.kind === 'board_sides' ? any.value.cut_out : null))
/** Tapers: which sides each kind of leg may have cut, and what one begins as. */
const SIDES: Partial<Record<Kind, [string, string][]>> = {
  plane_frames: [
    ['inside', 'inner edge and inner face'],
    ['inner', 'inner edge'],
    ['outer', 'outer edge'],
    ['all', 'all four'],
  ],
  mitred_frames: [
    ['inner', 'inner edge'],
    ['outer', 'outer edge'],
    ['both', 'both edges'],
  ],
  aproned_legs: [
    ['inside', 'both inner sides'],
    ['inner', 'inner side beside the front or back'],
    ['outer', 'outer side'],
    ['all', 'all four'],
  ],
  board_sides: [
    ['both', 'front and back edge'],
    ['front', 'front edge'],
    ['back', 'back edge'],
  ],
}
const sides = computed(() => (any.value ? SIDES[any.value.kind as Kind] : undefined))
const taper = computed(() => (any.value && 'taper' in any.value ? any.value.taper : null))
const TAPER = computed<Row[]>(() => [
  choice('taper.sides', 'On', sides.value ?? []),
  ...(board.value
    ? [
        choice('taper.narrower', 'Narrower at', [
          ['top', 'the top'],
          ['foot', 'the foot'],
        ]),
        typed('taper.off', 'In by'),
      ]
    : [typed('taper.begins', 'Begins down'), typed('taper.foot', 'At the foot')]),
])
const taperLegs = (on: boolean): void =>
  store.restate({ what: 'taper', to: on ? 'on' : 'off', support: index.value })
/** Screws from below into the top, for every support that has pieces lying under it. */
const holds = computed(() => any.value !== undefined && 'held' in any.value)
const held = computed(() => (any.value && 'held' in any.value ? any.value.held : null))
const WAYS = [
  { value: 'nothing', title: 'nothing yet' },
  { value: 'screws', title: 'screws from below' },
  { value: 'buttons', title: 'buttons' },
]
const SCREWS: Row[] = [
  typed('held.size', 'Screw, thick'),
  typed('held.length', 'Screw, long'),
  typed('held.bite', 'Into the top'),
  typed('held.head', 'Head, wide'),
  typed('held.slant', 'Slant'),
  count('held.count', 'In a piece'),
  typed('held.from_ends', 'From ends'),
  typed('held.moves', 'Top moves'),
]
const BUTTONS: Row[] = [
  typed('held.groove', 'Groove'),
  typed('held.deep', 'Deep'),
  typed('held.drop', 'Below the top'),
  typed('held.wide', 'Button, wide'),
  typed('held.bite', 'Into the top'),
  count('held.count', 'At a piece'),
  typed('held.from_ends', 'From ends'),
  typed('held.moves', 'Top moves'),
]
const hold = (way: string): void => store.restate({ what: 'held', to: way, support: index.value })
/** Splines through the top into the boards' ends. */
const splines = computed(() => (any.value?.kind === 'board_sides' ? any.value.splines : null))
const SPLINES: Row[] = [
  count('splines.count', 'In a board'),
  typed('splines.width', 'Wide'),
  typed('splines.depth', 'Notch, deep'),
  typed('splines.from_edges', 'From edges'),
  typed('splines.proud', 'Standing out'),
]
const spline = (on: boolean): void =>
  store.restate({ what: 'splines', to: on ? 'on' : 'off', support: index.value })
const CUT = [typed('cut_out.width', 'Between the feet'), typed('cut_out.height', 'High')]
function feetOf(on: boolean): void {
  store.set(`${base.value}.cut_out`, on ? {} : null)
}
</script>

<template>
  <section aria-label="Sizes of this support">
    <PieceForm :base="base" :rows="form" />
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
      v-if="sides"
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
        <PieceForm :base="`${base}.${between.at}.${k}`" :rows="lines" :across="lines.length" />
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
        <button v-if="lowerRails.length < 4" class="plain word" type="button" @click="addLowerRail">
          another
        </button>
      </p>
      <div v-for="(one, k) in lowerRails" :key="k" class="row">
        <PieceForm :base="`${base}.lower.rails.${k}`" :rows="RAIL" :across="RAIL.length" />
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
    <PieceForm v-if="doweled" :base="base" :rows="DOWELS" :across="4" />
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
      <PieceForm
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
