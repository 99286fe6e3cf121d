<script setup lang="ts">
import { computed, ref } from 'vue'

import Drawing from '../../drawing/Drawing.vue'
import DocumentForm from '../../fields/DocumentForm.vue'
import { wordsOf } from '../../fields/published'
import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'
import CardPicker from '../CardPicker.vue'
import ChangesPanel from '../ChangesPanel.vue'
import Findings from '../Findings.vue'
import TurnsTable from '../TurnsTable.vue'
import { useSupport } from '../support'

const store = usePiece()
const { index, support, base } = useSupport()
/** The first set of legs that is bored, where another kind of support was being looked at. */
const first = (store.piece?.supports ?? []).findIndex((s) => s.kind === 'staked_legs')
if (!support.value && first >= 0) index.value = first
const legs = ref<number[]>([1])
/** The top as it lies to bore the legs that are being looked at: either face may be up. */
const lying = computed(() => {
  const views = store.drawings?.piece ?? []
  const chosen = support.value?.joint
  const up = chosen && 'bored_from' in chosen && chosen.bored_from === 'upper'
  return views.find((view) => view.name === (up ? 'upper' : 'underside')) ?? views[0]
})
const section = computed(
  () =>
    store.drawings?.sections.find((view) => legs.value.some((n) => view.name === `section.${n}`)) ??
    store.drawings?.sections[0],
)
const socket = computed(() => store.plan?.sockets.find((s) => legs.value.includes(s.number)))
const figures = computed(() => {
  const s = socket.value
  if (!s) return []
  return [
    s.mouth,
    s.exit_shift,
    s.first_touch,
    s.obtuse_wall,
    s.acute_wall,
    s.deepest,
    s.left_above,
    s.edge,
    ...s.more,
  ].filter((figure) => figure !== null && figure !== undefined)
})
const turns = computed(() => store.plan?.turns ?? [])
const joint = computed(() => support.value?.joint)
const WAYS = wordsOf('StakedLegs', 'joint')
const FACE = 'joint.bored_from'
const PEG = ['joint.peg.diameter', 'joint.peg.angle']
const FORMS: Record<string, string[]> = {
  through: ['joint.socket', 'joint.proud', 'joint.left', FACE],
  blind: ['joint.socket', 'joint.depth'],
  reamed: ['joint.socket', 'joint.included', 'joint.proud', 'joint.left', 'joint.per_turn'],
  battened: [
    'joint.socket',
    'joint.depth',
    'joint.batten_width',
    'joint.batten_thickness',
    'joint.end',
    'joint.screw',
    'joint.counterbore',
    'joint.screws',
  ],
  shouldered: ['joint.socket', 'joint.across', 'joint.depth'],
  dowel_screw: ['joint.socket', 'joint.core', 'joint.length', 'joint.into_top', 'joint.recess'],
}
const pegged = computed(() => joint.value !== undefined && 'peg' in joint.value)
const form = computed(() => [
  ...(FORMS[joint.value?.way ?? 'through'] ?? []),
  ...(joint.value && 'peg' in joint.value && joint.value.peg
    ? [...PEG, 'joint.peg.entry', ...(joint.value.way === 'blind' ? ['joint.peg.place'] : [])]
    : []),
])
/** A tenon that goes through or ends blind may be wedged; the blind one's wedge vanishes with it. */
const wedge = computed(() =>
  joint.value && 'wedge' in joint.value ? joint.value.wedge : undefined,
)
const WEDGE = computed(() => [
  'joint.wedge.lies',
  'joint.wedge.taper',
  'joint.wedge.edge',
  'joint.wedge.kerf',
  ...(joint.value?.way === 'through' ? ['joint.wedge.over', 'joint.wedge.dry'] : []),
])
const wedgeIt = (on: boolean): void => store.set(`${base.value}.joint.wedge`, on ? {} : null)
const peg = (on: boolean): void =>
  store.restate({ what: 'peg', to: on ? 'peg' : 'none', support: index.value })
const warned = computed(() =>
  (store.plan?.findings ?? [])
    .filter((f) => f.level !== 'note' && f.station === 'boring')
    .flatMap((f) => f.legs.map((n) => `leg.${n}`)),
)

function become(to: string): void {
  store.restate({ what: 'joint', to, support: index.value })
}
</script>

<template>
  <div class="station">
    <div class="left">
      <figure class="under">
        <figcaption>{{ lying?.title }}</figcaption>
        <Drawing
          v-if="lying"
          :view="lying"
          :lit="store.lit"
          :warned="warned"
          @point="store.lit = $event"
        />
      </figure>
      <div v-if="joint" class="fields">
        <v-select
          class="way"
          label="Joint"
          :items="WAYS"
          :model-value="joint.way"
          data-field="joint.way"
          @update:model-value="become"
        />
        <DocumentForm
          class="rows"
          :base="base"
          :rows="form"
          :across="form.length > 4 ? 4 : form.length"
        />
        <v-checkbox-btn
          v-if="wedge !== undefined"
          inline
          label="wedged"
          :model-value="!!wedge"
          data-wedged
          @update:model-value="wedgeIt"
        />
        <details v-if="wedge" class="wedge">
          <summary class="word">its wedge</summary>
          <DocumentForm :base="base" :rows="WEDGE" :across="4" />
        </details>
        <v-checkbox-btn
          v-if="pegged"
          inline
          label="pegged"
          :model-value="!!(joint && 'peg' in joint && joint.peg)"
          @update:model-value="peg"
        />
      </div>
      <div class="lower">
        <figure class="section">
          <figcaption>{{ section?.title }}</figcaption>
          <Drawing v-if="section" :view="section" :lit="store.lit" :letter="12" />
        </figure>
        <div>
          <div class="figs">
            <WhyFigure v-for="figure in figures" :key="figure.key" :figure="figure" />
          </div>
          <TurnsTable :turns="turns" />
        </div>
      </div>
    </div>
    <aside class="panel">
      <Findings station="boring" />
      <CardPicker station="boring" @legs="legs = $event" />
      <ChangesPanel of="leg" />
    </aside>
  </div>
</template>

<style scoped src="../station.css"></style>
<style scoped>
.way {
  flex: 0 0 190px;
}
.rows {
  flex: 1 1 300px;
}
.wedge {
  flex: 0 0 auto;
  font-size: 0.92rem;
}
.wedge[open] {
  flex: 1 0 100%;
}
.under {
  flex: 1 1 auto;
  min-height: 240px;
  display: flex;
  flex-direction: column;
}
.under :deep(svg) {
  min-height: 0;
  flex: 1;
}
.lower {
  display: grid;
  grid-template-columns: minmax(200px, 0.8fr) minmax(280px, 1fr);
  gap: 1rem;
  border-top: 1px solid var(--line);
  padding-top: 0.3rem;
}
@media (max-width: 600px) {
  .lower {
    grid-template-columns: 1fr;
  }
}
.section :deep(svg) {
  height: 190px;
}
</style>
