<script setup lang="ts">
import { computed, ref } from 'vue'

import type { SetUp } from '../../api/types'
import Drawing from '../../drawing/Drawing.vue'
import Choice from '../../fields/Choice.vue'
import PieceField from '../../fields/PieceField.vue'
import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'
import CardPicker from '../CardPicker.vue'
import Findings from '../Findings.vue'
import TurnsTable from '../TurnsTable.vue'
import { useSupport } from '../support'

const store = usePiece()
const { index, support, base } = useSupport()
const legs = ref<number[]>([1])
const underside = computed(() => store.drawings?.piece.find((view) => view.name === 'underside'))
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
  ].filter((figure) => figure !== null && figure !== undefined)
})
const turns = computed(() => {
  const found = new Map<number, SetUp['turns'][number]>()
  for (const card of store.plan?.setups ?? [])
    if (card.station === 'boring') for (const turn of card.turns) found.set(turn.leg, turn)
  return [...found.values()].sort((a, b) => a.leg - b.leg)
})
const joint = computed(() => support.value?.joint)
const WAYS = [
  { value: 'through', title: 'through' },
  { value: 'blind', title: 'blind' },
]
const FACES = [
  { value: 'underside', title: 'underside' },
  { value: 'upper', title: 'upper face' },
]
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
        <figcaption>{{ underside?.title }}</figcaption>
        <Drawing
          v-if="underside"
          :view="underside"
          :lit="store.lit"
          :warned="warned"
          @point="store.lit = $event"
        />
      </figure>
      <div v-if="joint" class="fields">
        <Choice label="Joint" :items="WAYS" :value="joint.way ?? 'through'" @choose="become" />
        <PieceField label="Socket" :path="`${base}.joint.socket`" />
        <PieceField
          v-if="joint.way === 'blind'"
          label="Depth along the axis"
          :path="`${base}.joint.depth`"
        />
        <template v-else>
          <PieceField label="Proud" :path="`${base}.joint.proud`" />
          <Choice
            label="Bored from"
            :items="FACES"
            :value="joint.bored_from ?? 'underside'"
            @choose="store.set(`${base}.joint.bored_from`, $event)"
          />
        </template>
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
    </aside>
  </div>
</template>

<style scoped src="../station.css"></style>
<style scoped>
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
