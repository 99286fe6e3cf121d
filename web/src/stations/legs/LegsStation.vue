<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Figure, LegPart } from '../../api/types'
import Drawing from '../../drawing/Drawing.vue'
import Choice from '../../fields/Choice.vue'
import FigureText from '../../fields/FigureText.vue'
import PieceField from '../../fields/PieceField.vue'
import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'
import CardPicker from '../CardPicker.vue'
import Findings from '../Findings.vue'
import { useSupport } from '../support'

const store = usePiece()
const { support, base } = useSupport()
const legs = ref<number[]>([1])
const view = computed(
  () =>
    store.drawings?.legs.find((v) => legs.value.some((n) => v.name === `leg.${n}`)) ??
    store.drawings?.legs[0],
)
const part = computed(() => store.plan?.parts.find((p) => legs.value.includes(p.number)))
const figures = computed<Figure[]>(() => {
  const p = part.value
  if (!p) return []
  const all = [p.exposed, p.in_top, p.finished, p.blank, p.stock, p.octagon, p.wedge]
  return [...all, p.high_low, p.foot_long, p.foot_short].filter((figure) => figure !== null)
})
const COLUMNS: [string, (p: LegPart) => Figure][] = [
  ['exposed', (p) => p.exposed],
  ['in the top', (p) => p.in_top],
  ['finished', (p) => p.finished],
  ['blank', (p) => p.blank],
]
const SECTIONS = [
  { value: 'round', title: 'round' },
  { value: 'square', title: 'square' },
]
const FACINGS = [
  { value: 'front', title: 'to the front' },
  { value: 'sightline', title: 'along the sightline' },
]
</script>

<template>
  <div class="station">
    <div class="left">
      <figure class="leg">
        <figcaption>{{ view?.title }}</figcaption>
        <Drawing v-if="view" :view="view" :lit="store.lit" />
      </figure>
      <div v-if="support" class="fields">
        <Choice
          label="Legs are"
          :items="SECTIONS"
          :value="support.leg.section ?? 'round'"
          @choose="store.set(`${base}.leg.section`, $event)"
        />
        <Choice
          v-if="support.leg.section === 'square'"
          label="A face turned"
          :items="FACINGS"
          :value="support.leg.facing ?? 'front'"
          @choose="store.set(`${base}.leg.facing`, $event)"
        />
        <PieceField label="Thick at the top" :path="`${base}.leg.at_top`" />
        <PieceField label="Thick at the foot" :path="`${base}.leg.at_foot`" />
        <PieceField label="Trim allowance" :path="`${base}.allowance`" />
      </div>
      <div class="two">
        <table>
          <caption>
            Every leg, along its middle
          </caption>
          <thead>
            <tr>
              <th>Leg</th>
              <th v-for="[name] in COLUMNS" :key="name">{{ name }}</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="leg in store.plan?.parts"
              :key="leg.number"
              :data-leg="leg.number"
              :class="{ lit: store.lit === `leg.${leg.number}` }"
              @pointerenter="store.lit = `leg.${leg.number}`"
              @pointerleave="store.lit = ''"
            >
              <td class="figures">{{ leg.number }}</td>
              <td v-for="[name, pick] in COLUMNS" :key="name">
                <FigureText :text="pick(leg).quantity.text" />
              </td>
            </tr>
          </tbody>
        </table>
        <div class="figs">
          <WhyFigure v-for="figure in figures" :key="figure.key" :figure="figure" />
        </div>
      </div>
    </div>
    <aside class="panel">
      <Findings station="legs" />
      <CardPicker station="legs" @legs="legs = $event" />
    </aside>
  </div>
</template>

<style scoped src="../station.css"></style>
<style scoped>
.leg {
  flex: 0 0 auto;
}
.leg :deep(svg) {
  height: 210px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 1.2rem;
  align-items: start;
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
}
@media (max-width: 600px) {
  .two {
    grid-template-columns: 1fr;
  }
}
tr.lit {
  background: var(--wood);
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 0.92rem;
}
caption,
th {
  text-align: left;
  font-weight: 600;
  font-size: 0.84rem;
}
td {
  border-top: 1px solid var(--line);
  padding: 5px 0;
}
</style>
