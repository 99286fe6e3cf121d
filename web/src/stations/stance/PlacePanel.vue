<script setup lang="ts">
import { computed } from 'vue'

import Choice from '../../fields/Choice.vue'
import DocumentField from '../../fields/DocumentField.vue'
import { wordsOf } from '../../fields/published'
import { usePiece } from '../../piece/store'
import { useSupport } from '../support'

/** Where the legs stand on the underside. */
const store = usePiece()
const { index, support, base } = useSupport()
const way = computed(() => support.value?.placement)
const WAYS = wordsOf('StakedLegs', 'placement')
const MIRRORS = wordsOf('Spot', 'mirror')
const spots = computed(() => (way.value?.way === 'free' ? way.value.spots : []))

/** Another way of laying out, starting from where the legs are now. */
function become(to: string): void {
  store.restate({ what: 'placement', to, support: index.value })
}
const addSpot = (): void => store.restate({ what: 'spot', to: 'more', support: index.value })
function dropSpot(at: number): void {
  store.set(
    `${base.value}.placement.spots`,
    spots.value.filter((_, k) => k !== at),
  )
}
function recount(event: Event): void {
  const typed = (event.target as HTMLInputElement).value
  store.set(`${base.value}.placement.count`, /^\d+$/.test(typed.trim()) ? Number(typed) : typed)
}
const countFault = computed(() => store.faults[`${base.value}.placement.count`])
</script>

<template>
  <section v-if="way" aria-label="Where the legs stand">
    <Choice label="Legs stand:" :items="WAYS" :value="way.way ?? 'circle'" @choose="become" />
    <p v-if="store.faults[`${base}.placement`]" class="wrong" role="alert">
      {{ store.faults[`${base}.placement`]?.said }}
    </p>
    <div v-if="way.way === 'circle'" class="grid three">
      <v-text-field
        label="How many"
        :model-value="way.count"
        inputmode="numeric"
        :error-messages="countFault ? countFault.said : ''"
        :data-field="`${base}.placement.count`"
        @change="recount"
      />
      <DocumentField :path="`${base}.placement.radius`" />
      <DocumentField :path="`${base}.placement.first`" />
    </div>
    <div v-else-if="way.way === 'triangle'" class="grid">
      <DocumentField :path="`${base}.placement.side`" />
      <DocumentField :path="`${base}.placement.first`" />
    </div>
    <div v-else-if="way.way === 'insets'" class="grid">
      <DocumentField :path="`${base}.placement.from_ends`" />
      <DocumentField :path="`${base}.placement.from_edges`" />
    </div>
    <template v-else>
      <div v-for="(spot, k) in spots" :key="k" class="spot">
        <DocumentField :path="`${base}.placement.spots.${k}.x`" />
        <DocumentField :path="`${base}.placement.spots.${k}.y`" />
        <v-select
          label="Stands"
          :items="MIRRORS"
          :model-value="spot.mirror"
          @update:model-value="store.set(`${base}.placement.spots.${k}.mirror`, $event)"
        />
        <button
          v-if="spots.length > 1"
          class="plain word"
          type="button"
          :aria-label="`Take leg spot ${k + 1} away`"
          @click="dropSpot(k)"
        >
          away
        </button>
      </div>
    </template>
    <p v-if="way.way === 'free'" class="line small">
      <button class="plain word" type="button" @click="addSpot">another leg</button>
    </p>
  </section>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.small {
  font-size: 0.9rem;
  justify-content: flex-start;
}
.spot {
  display: grid;
  grid-template-columns: 1fr 1fr 1.2fr auto;
  gap: 0.5rem;
  align-items: baseline;
}
</style>
