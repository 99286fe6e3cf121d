<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Figure, LegPart } from '../../api/types'
import Drawing from '../../drawing/Drawing.vue'
import FigureText from '../../fields/FigureText.vue'
import PieceForm from '../../fields/PieceForm.vue'
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
const rowsOf = (text: string): string[] =>
  text
    .split('\n')
    .map((row) => row.trim())
    .filter(Boolean)
const wordsOf = (row: string): string[] => row.split(/[,;\t]/).map((word) => word.trim())
const readBack = (at: string): string => store.plan?.chosen[at]?.text ?? ''
/** What was typed and cannot be used yet: all its lines stay, with what is wrong in one of them. */
const typedSticks = ref('')
const typedOld = ref('')
/** Sticks measured one by one: length and foot, one a line, as they were read off. */
function setSticks(text: string): void {
  typedSticks.value = text
  const were = leg.value?.sticks ?? []
  const shown = stickLines.value
  const rows = rowsOf(text)
  const sticks = rows.map((row, k) => {
    const [length, at_foot, ...note] = wordsOf(row)
    // A stick's old holes stay its own where lines above it come or go.
    const was = were[shown.indexOf(row)] ?? (rows.length === were.length ? were[k] : undefined)
    return {
      length,
      at_foot: at_foot || String(leg.value?.at_foot ?? 30),
      note: note.join(', '),
      old: was?.old ?? [],
      bend: was?.bend ?? null,
    }
  })
  store.set(`${path.value}.leg.sticks`, sticks)
}
const stickLines = computed(() =>
  (leg.value?.sticks ?? []).map((stick, k) => {
    const at = `${path.value}.leg.sticks.${k}`
    return [readBack(`${at}.length`), readBack(`${at}.at_foot`), stick.note]
      .filter(Boolean)
      .join(', ')
  }),
)
const sticksShown = computed(() => stickLines.value.join('\n'))
/** Old holes in them: which stick, from where to where, one a line. */
const strange = ref('')
function setOld(text: string): void {
  typedOld.value = text
  const sticks = leg.value?.sticks ?? []
  const found: { nearer: string; farther: string }[][] = sticks.map(() => [])
  strange.value = ''
  for (const row of rowsOf(text)) {
    const [stick = '', nearer = '', farther = ''] = wordsOf(row)
    const mine = found[Number(stick) - 1]
    if (!mine) {
      strange.value = `There is no stick ${stick} in the list above: “${row}” is kept here but not used.`
      return
    }
    mine.push({ nearer, farther })
  }
  const told = sticks.map((stick, k) => ({ ...stick, old: found[k] }))
  store.set(`${path.value}.leg.sticks`, told)
}
const oldShown = computed(() =>
  (leg.value?.sticks ?? [])
    .flatMap((stick, k) =>
      (stick.old ?? []).map((_, h) => {
        const at = `${path.value}.leg.sticks.${k}.old.${h}`
        return [k + 1, readBack(`${at}.nearer`), readBack(`${at}.farther`)].join(', ')
      }),
    )
    .join('\n'),
)
/** Bent ones: which stick, how far off its string, where, which way its back looks, one a line. */
const typedBends = ref('')
const strangeBend = ref('')
function setBends(text: string): void {
  typedBends.value = text
  const sticks = leg.value?.sticks ?? []
  const found: ({ rise: string; at: string; faces?: string } | null)[] = sticks.map(() => null)
  strangeBend.value = ''
  for (const row of rowsOf(text)) {
    const [stick = '', rise = '', at = '', faces = ''] = wordsOf(row)
    if (found[Number(stick) - 1] === undefined) {
      strangeBend.value = `There is no stick ${stick} in the list above: “${row}” is kept here but not used.`
      return
    }
    found[Number(stick) - 1] = { rise, at, ...(faces ? { faces } : {}) }
  }
  const told = sticks.map((stick, k) => ({ ...stick, bend: found[k] }))
  store.set(`${path.value}.leg.sticks`, told)
}
const bendsShown = computed(() =>
  (leg.value?.sticks ?? [])
    .flatMap((stick, k) => {
      const at = `${path.value}.leg.sticks.${k}.bend`
      return stick.bend
        ? [[k + 1, readBack(`${at}.rise`), readBack(`${at}.at`), stick.bend.faces].join(', ')]
        : []
    })
    .join('\n'),
)
const faultAt = (wanted: (at: string) => boolean) =>
  computed(() => Object.entries(store.faults).find(([at]) => wanted(at))?.[1])
const stickFault = faultAt(
  (at) => at.includes('.leg.sticks') && !at.includes('.old') && !at.includes('.bend'),
)
const bendFault = faultAt((at) => at.includes('.leg.sticks') && at.includes('.bend'))
const bendWrong = computed(
  () => strangeBend.value || (bendFault.value ? inWhole(bendFault.value) : ''),
)
const oldFault = faultAt((at) => at.includes('.leg.sticks') && at.includes('.old'))
const oldWrong = computed(() => strange.value || (oldFault.value ? inWhole(oldFault.value) : ''))
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
        <PieceForm v-if="leg" :base="path" :rows="FORM" :across="FORM.length" />
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
              <PieceForm :base="path" :rows="making" />
              <v-checkbox-btn
                inline
                label="thickest, or thinnest, in between"
                :model-value="!!leg.belly"
                data-belly
                @update:model-value="belly"
              />
              <label class="measured">
                Sticks as they lie there, one a line: length, foot, note
                <textarea
                  v-stands="stickFault ? typedSticks : sticksShown"
                  rows="3"
                  data-field="leg.sticks"
                  @change="setSticks(($event.target as HTMLTextAreaElement).value)"
                />
              </label>
              <p v-if="stickFault" class="wrong" role="alert">
                {{ inWhole(stickFault) }}
              </p>
              <template v-if="leg.sticks?.length">
                <label class="measured">
                  Old mortises and holes in them, one a line: which stick, from, to, along it from
                  the end that goes into the seat
                  <textarea
                    v-stands="oldWrong ? typedOld : oldShown"
                    rows="3"
                    data-field="leg.sticks.old"
                    @change="setOld(($event.target as HTMLTextAreaElement).value)"
                  />
                </label>
                <p v-if="oldWrong" class="wrong" role="alert">{{ oldWrong }}</p>
                <label class="measured">
                  Bent ones, one a line: which stick, how far off a string from end to end, where
                  along it, its back outward, inward, left or right
                  <textarea
                    v-stands="bendWrong ? typedBends : bendsShown"
                    rows="2"
                    data-field="leg.sticks.bend"
                    @change="setBends(($event.target as HTMLTextAreaElement).value)"
                  />
                </label>
                <p v-if="bendWrong" class="wrong" role="alert">{{ bendWrong }}</p>
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
