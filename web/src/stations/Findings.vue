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
const WORD = { stop: 'Stop', caution: 'Caution', note: 'Note' }
</script>

<template>
  <ul class="findings">
    <li
      v-for="(finding, index) in list"
      :key="index"
      :class="finding.level"
      :data-finding="finding.code"
      tabindex="0"
      @pointerenter="store.lit = finding.legs[0] ? `leg.${finding.legs[0]}` : ''"
      @pointerleave="store.lit = ''"
      @focus="store.lit = finding.legs[0] ? `leg.${finding.legs[0]}` : ''"
      @blur="store.lit = ''"
    >
      <strong>{{ WORD[finding.level] }}.</strong> {{ finding.text }} {{ finding.mend }}
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
  gap: 4px;
}
li {
  border-left: 6px solid var(--caution);
  padding: 2px 0 2px 8px;
  font-size: 0.88rem;
}
li.stop {
  border-color: var(--cut);
}
li.note {
  border-left: 6px double var(--line);
}
a {
  color: inherit;
}
</style>
