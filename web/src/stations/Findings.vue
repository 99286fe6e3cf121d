<script setup lang="ts">
import { computed } from 'vue'

import { usePiece } from '../piece/store'

/** What the plan found, for one station; pointing at one lights its legs in the drawing. */
const props = defineProps<{ /** The station whose findings are listed. */ station: string }>()
const store = usePiece()
const list = computed(() => (store.plan?.findings ?? []).filter((f) => f.station === props.station))
const elsewhere = computed(() => {
  const other = (store.plan?.findings ?? []).filter(
    (f) => f.station !== props.station && f.level !== 'note',
  )
  return [...new Set(other.map((f) => f.station))]
})
/** To the field that changes it, where it is on this page. */
function toField(path: string): void {
  if (!path) return
  document.querySelector<HTMLElement>(`[data-field^="${CSS.escape(path)}"] input`)?.focus()
}
const WORD = { stop: 'Stop', caution: 'Caution', note: 'Note' }
</script>

<template>
  <ul class="findings">
    <li
      v-for="(finding, index) in list"
      :key="index"
      :class="finding.level"
      :data-finding="finding.code"
      :tabindex="finding.level === 'note' ? undefined : 0"
      @pointerenter="store.lit = finding.legs[0] ? `leg.${finding.legs[0]}` : ''"
      @pointerleave="store.lit = ''"
      @focus="store.lit = finding.legs[0] ? `leg.${finding.legs[0]}` : ''"
      @blur="store.lit = ''"
      @click="toField(finding.field)"
    >
      <details v-if="finding.level === 'note'">
        <summary><strong>Note.</strong> {{ finding.text }}</summary>
        {{ finding.mend }}
      </details>
      <template v-else>
        <strong>{{ WORD[finding.level] }}.</strong> {{ finding.text }} {{ finding.mend }}
      </template>
    </li>
    <li v-for="name in elsewhere" :key="name" class="caution">
      <RouterLink :to="`/piece/${store.id}/${name}`">There is a caution at {{ name }}.</RouterLink>
    </li>
  </ul>
</template>

<style scoped>
.findings {
  list-style: none;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
}
li {
  border-left: 6px solid var(--caution);
  padding: 2px 0 2px 8px;
  font-size: 1rem;
}
li.caution,
li.stop {
  cursor: pointer;
}
li.stop {
  border-color: var(--cut);
}
li.note {
  border-left: 6px double var(--line);
}
/* A note takes one line until it is opened: what is set and proved stays in sight. */
summary {
  cursor: pointer;
}
details:not([open]) summary {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
a {
  color: inherit;
  display: inline-block;
  min-height: 24px;
}
</style>
