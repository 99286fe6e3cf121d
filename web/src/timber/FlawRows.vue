<script setup lang="ts">
import { nextTick, ref } from 'vue'

import type { Fault } from '../api/types'
import type { FlawTyped } from './draft'
import { labelOf } from '../fields/published'
import TextBox from './TextBox.vue'

/** What is wrong with a board, a row each: which, from where to where along it, and across it. */
const props = defineProps<{
  /** Every kind there is, with its name. */
  kinds: Record<string, string>
  /** What is wrong, by the path in the document. */
  faults: Record<string, Fault>
}>()
/** The rows. */
const rows = defineModel<FlawTyped[]>('rows', { required: true })
const body = ref<HTMLElement>()
async function more(): Promise<void> {
  const kind = rows.value.at(-1)?.kind ?? 'knot'
  rows.value.push({ kind, start: '', end: '', low: '', high: '' })
  await nextTick()
  body.value?.querySelector<HTMLElement>('.row:last-of-type select')?.focus()
}
const fault = (k: number, name: string): Fault | undefined =>
  props.faults[`item.flaws.${k}.${name}`]
defineExpose({ more })
</script>

<template>
  <fieldset ref="body" class="flaws">
    <legend>Flaws, from the marked end and from the near edge</legend>
    <div v-if="rows.length" class="head" aria-hidden="true">
      <span></span><span>along, from</span><span>to</span><span>across, from</span><span>to</span>
    </div>
    <div v-for="(row, k) in rows" :key="k" class="row" :data-flaw="k">
      <select v-model="row.kind" :aria-label="`Flaw ${k + 1}`">
        <option v-for="(called, kind) in kinds" :key="kind" :value="kind">{{ called }}</option>
      </select>
      <TextBox
        v-model="row.start"
        :label="labelOf('Flaw', 'start', 'Pile')"
        bare
        figures
        :fault="fault(k, 'start')"
        @enter="more"
      />
      <TextBox
        v-model="row.end"
        :label="labelOf('Flaw', 'end', 'Pile')"
        bare
        figures
        :fault="fault(k, 'end')"
        @enter="more"
      />
      <TextBox
        v-model="row.low"
        :label="labelOf('Flaw', 'low', 'Pile')"
        bare
        figures
        :fault="fault(k, 'low')"
        @enter="more"
      />
      <TextBox
        v-model="row.high"
        :label="labelOf('Flaw', 'high', 'Pile')"
        bare
        figures
        :fault="fault(k, 'high')"
        @enter="more"
      />
      <button
        class="plain word"
        type="button"
        :aria-label="`take flaw ${k + 1} away`"
        @click="rows.splice(k, 1)"
      >
        off
      </button>
    </div>
    <button class="plain word" type="button" data-more-flaws @click="more">
      {{ rows.length ? 'another flaw' : 'a flaw' }}
    </button>
    <span v-if="rows.length" class="quiet small">
      (Enter in a row adds one; across left empty: all of it)</span
    >
  </fieldset>
</template>

<style scoped>
.flaws {
  border: 0;
  padding: 0;
  margin: 0;
  display: block;
  min-width: 0;
}
legend {
  font-weight: 650;
  padding: 0.4rem 0 0.2rem;
}
.row,
.head {
  display: grid;
  grid-template-columns: 6rem repeat(4, minmax(0, 1fr)) 2rem;
  gap: 4px;
  align-items: start;
  margin-bottom: 4px;
}
.head {
  font-size: 0.82rem;
}
select {
  font: inherit;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  min-height: 32px;
  min-width: 0;
}
.small {
  font-size: 0.84rem;
}
</style>
