<script setup lang="ts">
import { computed, ref } from 'vue'

import type { LegFigures, Restate } from '../../api/types'
import Choice from '../../fields/Choice.vue'
import DocumentField from '../../fields/DocumentField.vue'
import { wordsOf } from '../../fields/published'
import { usePiece } from '../../piece/store'
import { useSupport } from '../support'

/** How the legs lean: typed in one way, shown in all. */
const store = usePiece()
const { index, support, base, legs } = useSupport()
const WAYS = wordsOf('StakedLegs', 'angles')
const SCOPES = wordsOf('StakedLegs', 'scope')
const FROM = wordsOf('Resultant', 'measured_from')
const scope = computed(() => support.value?.scope ?? 'alike')
const pick = ref(0)

/** For each angle that may be typed: the legs it serves. */
const served = computed(() => {
  const groups = new Map<number, LegFigures[]>()
  legs.value.forEach((leg) => {
    groups.set(leg.angle, [...(groups.get(leg.angle) ?? []), leg])
  })
  return [...groups.entries()]
})
const slot = computed(() => Math.min(pick.value, served.value.length - 1))
const mine = computed(() => served.value[slot.value]?.[1] ?? [])
const at = computed(() => served.value[slot.value]?.[0] ?? 0)
const spec = computed(() => support.value?.angles[at.value])
const path = computed(() => `${base.value}.angles.${at.value}`)
const leg = computed(() => mine.value[0])
const ring = computed(() => ['circle', 'triangle'].includes(support.value?.placement.way ?? ''))

/** The same lean written another way. */
function become(by: string): void {
  if (leg.value) say(by, '', leg.value.number)
}
function measure(line: string): void {
  if (leg.value) say('resultant', line as Line, leg.value.number)
}
type Line = NonNullable<Restate['measured_from']>
function say(to: string, measured_from: Line, number: number): void {
  store.restate({ what: 'angle', to, support: index.value, leg: number, measured_from })
}

/** Each pair or leg starts from the lean it has now. */
function share(to: string): void {
  pick.value = 0
  store.restate({ what: 'scope', to, support: index.value })
}

const named = (list: LegFigures[]): string =>
  `${list.length > 1 ? 'legs' : 'leg'} ${list.map((one) => one.number).join(', ')}`
</script>

<template>
  <section v-if="spec && leg" aria-label="How the legs lean">
    <Choice label="Legs lean:" :items="SCOPES" :value="scope" @choose="share" />
    <Choice
      v-if="served.length > 1"
      label="Typing for:"
      :items="served.map(([, list], k) => ({ value: String(k), title: named(list) }))"
      :value="String(slot)"
      @choose="pick = Number($event)"
    />
    <Choice label="Given by:" :items="WAYS" :value="spec.by ?? ''" @choose="become" />
    <div v-if="spec.by === 'splay_rake'" class="grid">
      <DocumentField :path="`${path}.splay`" />
      <DocumentField :path="`${path}.rake`" />
    </div>
    <div v-else-if="spec.by === 'resultant'" class="grid three">
      <DocumentField :path="`${path}.resultant`" />
      <DocumentField :path="`${path}.sightline`" />
      <v-select
        label="from"
        :items="FROM"
        :model-value="spec.measured_from"
        @update:model-value="measure"
      />
    </div>
    <div v-else-if="spec.by === 'footprint'" class="grid">
      <DocumentField
        :label="ring ? 'Ring round the feet' : 'Feet, side to side'"
        :path="`${path}.width`"
      />
      <DocumentField v-if="!ring" :path="`${path}.depth`" />
    </div>
    <p v-if="store.faults[path]" class="wrong" role="alert">
      {{ store.faults[path]?.said }}
    </p>
  </section>
</template>

<style scoped src="./panel.css"></style>
