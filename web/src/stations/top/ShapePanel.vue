<script setup lang="ts">
import { computed } from 'vue'

import Choice from '../../fields/Choice.vue'
import DocumentForm from '../../fields/DocumentForm.vue'
import { usePiece } from '../../piece/store'
import { mostOf, wishes } from '../../fields/published'

/** What is shaped into the top: hollow, edges, boards, bark. */
const store = usePiece()
const top = computed(() => store.piece?.top)
const hollow = computed(() => top.value?.hollow)
const HOLLOWS = wishes('hollow')
const FORMS: Record<string, string[]> = {
  trough: ['hollow.across', 'hollow.chord', 'hollow.depth', 'hollow.strips'],
  dish: ['hollow.length', 'hollow.width', 'hollow.depth', 'hollow.strips'],
}
const edges = computed(() => {
  const rows: string[] = []
  for (const name of ['upper_edge', 'lower_edge'] as const) {
    rows.push(`${name}.way`)
    if (top.value?.[name]?.way !== 'square') rows.push(`${name}.size`)
    if (top.value?.[name]?.way === 'chamfer') rows.push(`${name}.angle`)
  }
  return rows
})
const boards = computed(() => top.value?.boards ?? [])

/** The corners where the curve breaks, by their numbers. */
const sharp = computed(() => store.plan?.lines?.['top.outline.corners'] ?? '')
function setSharp(text: string): void {
  const outline = top.value?.outline
  if (outline?.kind !== 'drawn') return
  store.set('top.outline.corners', { lines: text, were: outline.corners })
}

const outlineFault = computed(
  () => store.faults['top.outline.corners'] ?? store.faults['top.outline.smooth'],
)

const holds = computed(() => top.value?.hand_holds ?? [])
const MOST_HOLDS = mostOf('Top', 'hand_holds')
const HOLD = ['x', 'y', 'length', 'width', 'turn']
const more = (): void => store.restate({ what: 'hand_hold', to: 'more' })
const drop = (k: number): void =>
  store.set(
    'top.hand_holds',
    holds.value.filter((_, at) => at !== k),
  )

const STAYS = ['gap.width', 'gap.stays']

/** Widths as typed in one line, since that is how they are written on the offcut. */
const shown = computed(() => store.plan?.lines?.['top.boards'] ?? '')
const setBoards = (text: string): void =>
  store.set('top.boards', { lines: text, were: boards.value, shown: shown.value })
const boardFault = computed(() =>
  Object.entries(store.faults).find(([path]) => path.startsWith('top.boards')),
)
</script>

<template>
  <section v-if="top" class="shape" aria-label="What is shaped into the top">
    <Choice
      label="Upper face:"
      :items="HOLLOWS"
      :value="hollow?.way ?? 'none'"
      @choose="store.restate({ what: 'hollow', to: $event })"
    />
    <DocumentForm v-if="hollow" base="top" :rows="FORMS[hollow.way ?? 'dish'] ?? []" />
    <DocumentForm base="top" :rows="edges" :across="edges.length > 4 ? 3 : edges.length" />
    <div class="two">
      <v-text-field
        label="Boards, wide"
        :model-value="shown"
        placeholder="one piece"
        :error-messages="boardFault ? boardFault[1].said : ''"
        data-field="top.boards"
        @change="setBoards(($event.target as HTMLInputElement).value)"
      />
      <DocumentForm base="top" :rows="['grain', 'left_on', 'bark']" :across="2" />
    </div>
    <v-checkbox-btn
      inline
      label="two boards side by side with a gap, each held by itself"
      :model-value="Boolean(top.gap)"
      data-gap
      @update:model-value="store.restate({ what: 'gap', to: $event ? 'on' : 'off' })"
    />
    <DocumentForm v-if="top.gap" base="top" :rows="STAYS" :across="2" />
    <p class="line">
      <strong>Hand-holds</strong>
      <button
        v-if="holds.length < MOST_HOLDS"
        class="plain word"
        type="button"
        data-more-holds
        @click="more"
      >
        {{ holds.length ? 'another hand-hold' : 'a hand-hold' }}
      </button>
    </p>
    <div v-for="(_, k) in holds" :key="k" class="hold" :data-hold="k">
      <DocumentForm :base="`top.hand_holds.${k}`" :rows="HOLD" :across="5" />
      <button
        class="plain word"
        type="button"
        :aria-label="`Take hand-hold ${k + 1} away`"
        @click="drop(k)"
      >
        away
      </button>
    </div>
    <v-checkbox-btn
      v-if="top.outline.kind === 'drawn'"
      inline
      label="a curve through the corners; drag them in the plan of the Stance"
      :model-value="top.outline.smooth"
      @update:model-value="store.set('top.outline.smooth', $event)"
    />
    <v-text-field
      v-if="top.outline.kind === 'drawn' && top.outline.smooth"
      label="Sharp corners, by number"
      :model-value="sharp"
      placeholder="none"
      persistent-placeholder
      data-sharp
      @change="setSharp(($event.target as HTMLInputElement).value)"
    />
    <p v-if="outlineFault" class="wrong" role="alert">{{ outlineFault.said }}</p>
  </section>
</template>

<style scoped>
.shape {
  display: grid;
  gap: 0.5rem;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1.2fr;
  gap: 0.5rem;
  align-items: start;
}
.wrong {
  color: var(--cut);
}
.line {
  display: flex;
  gap: 1.5rem;
}
.hold {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.5rem;
  align-items: center;
}
.hold :deep(.form) {
  --least: 5.6rem;
  gap: 0.3rem;
}
.word {
  font-size: 0.9rem;
}
</style>
