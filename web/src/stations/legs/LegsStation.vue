<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Figure, LegPart } from '../../api/types'
import Drawing from '../../drawing/Drawing.vue'
import FigureText from '../../fields/FigureText.vue'
import DocumentForm from '../../fields/DocumentForm.vue'
import WhyFigure from '../../fields/WhyFigure.vue'
import { inWhole } from '../../said'
import { usePiece } from '../../piece/store'
import CardPicker from '../CardPicker.vue'
import Findings from '../Findings.vue'
import StickTable from '../StickTable.vue'
import { vStands } from '../../fields/stands'

const store = usePiece()
const legs = ref<number[]>([1])
const keys = ref<string[]>([])
const sticks = computed(() => store.plan?.sticks ?? [])
const round = computed(() => store.plan?.parts ?? [])

/** The card shown decides whether round legs or square stock is laid out, where a piece has both. */
const onSticks = computed(() => !round.value.length || keys.value.length > 0)
const view = computed(
  () =>
    store.drawings?.legs.find((v) => legs.value.some((n) => v.name === `leg.${n}`)) ??
    store.drawings?.legs[0],
)
const part = computed(
  () => round.value.find((p) => legs.value.includes(p.number)) ?? round.value[0],
)
const staked = computed(() => {
  const at = part.value?.support
  return at === undefined ? undefined : store.piece?.supports[at]
})
const leg = computed(() => (staked.value?.kind === 'staked_legs' ? staked.value.leg : undefined))
const path = computed(() => `supports.${part.value?.support ?? 0}`)
const figures = computed<Figure[]>(() => {
  const p = part.value
  if (!p) return []
  const all = [p.exposed, p.in_top, p.finished, p.blank, p.stock, ...p.making, p.wedge]
  return [...all, p.high_low, p.foot_long, p.foot_short].filter((figure) => figure !== null)
})
const counts = computed(() => store.plan?.counts ?? [])
const batches = computed(() => store.plan?.batches ?? [])
const COLUMNS: [string, (p: LegPart) => Figure][] = [
  ['exposed', (p) => p.exposed],
  ['in the top', (p) => p.in_top],
  ['finished', (p) => p.finished],
  ['blank', (p) => p.blank],
]
const FORM = computed<string[]>(() => [
  'leg.section',
  ...(leg.value?.section === 'square' ? ['leg.facing'] : []),
  'leg.at_top',
  ...(leg.value?.belly ? ['leg.belly.size'] : []),
  'leg.at_foot',
  'allowance',
])
const making = computed<string[]>(() => [
  'leg.made_by',
  'leg.tenon_by',
  'leg.neck',
  ...(leg.value?.neck === 'cove' ? ['leg.cove', 'leg.eased'] : []),
  'leg.relief',
  'leg.spare',
  'leg.practice',
])
const belly = (on: boolean): void =>
  store.restate({
    what: 'belly',
    to: on ? 'belly' : 'none',
    support: part.value?.support ?? 0,
  })
/** Sticks measured one by one, old holes in them, bent ones: typed in lines, which the core reads. */
type Of = 'sticks' | 'old' | 'bend'
const sticksAt = computed(() => `${path.value}.leg.sticks`)
const stickLines = (of: Of): string =>
  store.plan?.lines?.[of === 'sticks' ? sticksAt.value : `${sticksAt.value}.${of}`] ?? ''
/** What was typed and cannot be used yet: all its lines stay, with what is wrong in one of them. */
const typed = ref<Record<Of, string>>({ sticks: '', old: '', bend: '' })
function setLines(of: Of, event: Event): void {
  const text = (event.target as HTMLTextAreaElement).value
  typed.value[of] = text
  const sticks = leg.value?.sticks ?? []
  const were = {
    sticks,
    old: sticks.flatMap((stick) => stick.old ?? []),
    bend: sticks.flatMap((stick) => stick.bend ?? []),
  }[of]
  store.set(sticksAt.value, { lines: text, of, were, shown: stickLines(of), sticks })
}
const linesFault = computed(() => {
  const fault = store.faults[sticksAt.value]
  if (!fault) return null
  const about = fault.field.split('.')
  const of: Of = about.includes('old') ? 'old' : about.includes('bend') ? 'bend' : 'sticks'
  return { of, said: inWhole(fault) }
})
const stands = (of: Of): string => (linesFault.value?.of === of ? typed.value[of] : stickLines(of))
const LINES: { of: Of; asks: string }[] = [
  { of: 'sticks', asks: 'Sticks as they lie there, one a line: length, foot, note' },
  {
    of: 'old',
    asks:
      'Old mortises and holes in them, one a line: which stick, from, to, along it from the end ' +
      'that goes into the seat',
  },
  {
    of: 'bend',
    asks:
      'Bent ones, one a line: which stick, how far off a string from end to end, where along it, ' +
      'its back outward, inward, left or right',
  },
]
const asked = computed(() => (leg.value?.sticks?.length ? LINES : LINES.slice(0, 1)))
function show(numbers: number[]): void {
  if (numbers.length) legs.value = numbers
}
</script>

<template>
  <div class="station">
    <div class="left">
      <StickTable v-if="onSticks" :sticks="sticks" :parts="keys" />
      <template v-else>
        <figure class="leg">
          <figcaption>{{ view?.title }}</figcaption>
          <Drawing v-if="view" :view="view" :lit="store.lit" />
        </figure>
        <DocumentForm v-if="leg" :base="path" :rows="FORM" :across="FORM.length" />
        <div class="two">
          <div>
            <v-table>
              <caption>
                Every leg, along its middle
              </caption>
              <thead>
                <tr>
                  <th scope="col">Leg</th>
                  <th v-for="[name] in COLUMNS" :key="name" scope="col">{{ name }}</th>
                </tr>
              </thead>
              <tbody>
                <tr
                  v-for="one in round"
                  :key="one.number"
                  :data-leg="one.number"
                  :class="{ lit: store.lit === `leg.${one.number}` }"
                  @pointerenter="store.lit = `leg.${one.number}`"
                  @pointerleave="store.lit = ''"
                >
                  <td class="figures">{{ one.number }}</td>
                  <td v-for="[name, pick] in COLUMNS" :key="name">
                    <FigureText :text="pick(one).quantity.text" />
                  </td>
                </tr>
              </tbody>
            </v-table>
            <details v-if="leg" class="making">
              <summary>how they are made, spares, sticks measured one by one</summary>
              <DocumentForm :base="path" :rows="making" />
              <v-checkbox-btn
                inline
                label="thickest, or thinnest, in between"
                :model-value="!!leg.belly"
                data-belly
                @update:model-value="belly"
              />
              <template v-for="one in asked" :key="one.of">
                <label class="measured">
                  {{ one.asks }}
                  <textarea
                    v-stands="stands(one.of)"
                    rows="3"
                    :data-field="one.of === 'sticks' ? 'leg.sticks' : `leg.sticks.${one.of}`"
                    @change="setLines(one.of, $event)"
                  />
                </label>
                <p v-if="linesFault?.of === one.of" class="wrong" role="alert">
                  {{ linesFault.said }}
                </p>
              </template>
              <div v-if="counts.length" class="figs">
                <WhyFigure v-for="figure in counts" :key="figure.key" :figure="figure" />
              </div>
              <div v-for="batch in batches" :key="batch.support" class="figs">
                <WhyFigure :figure="batch.make" />
                <WhyFigure v-if="batch.shortest" :figure="batch.shortest" />
                <WhyFigure v-for="off in batch.cut_off" :key="off.key" :figure="off" />
              </div>
            </details>
          </div>
          <div class="figs">
            <WhyFigure v-for="figure in figures" :key="figure.key" :figure="figure" />
          </div>
        </div>
      </template>
    </div>
    <aside class="panel">
      <Findings station="legs" />
      <CardPicker station="legs" @legs="show" @parts="keys = $event" />
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
summary {
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 3px;
  font-size: 0.88rem;
}
.making {
  padding-top: 0.5rem;
}
.making > * + * {
  margin-top: 0.5rem;
}
.measured {
  font-size: 0.88rem;
  display: block;
}
textarea {
  display: block;
  width: 100%;
  font: inherit;
  color: inherit;
  background: none;
  border: 1px solid var(--line);
  padding: 4px 8px;
}
.wrong {
  color: var(--cut);
}
</style>
