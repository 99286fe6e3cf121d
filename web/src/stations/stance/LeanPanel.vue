<script setup lang="ts">
import { computed, ref } from 'vue'

import type { LegFigures } from '../../api/types'
import Choice from '../../fields/Choice.vue'
import PieceField from '../../fields/PieceField.vue'
import { usePiece } from '../../piece/store'
import { useSupport } from '../support'

/** How the legs lean: typed in one way, shown in all. */
const store = usePiece()
const { support, base, legs } = useSupport()
const WAYS = [
  { value: 'splay_rake', title: 'splay and rake' },
  { value: 'resultant', title: 'resultant and sightline' },
  { value: 'under_rim', title: 'foot under the rim' },
  { value: 'as_wide', title: 'as wide as the top' },
  { value: 'footprint', title: 'footprint' },
]
const SCOPES = [
  { value: 'alike', title: 'all alike' },
  { value: 'pairs', title: 'mirrored pairs' },
  { value: 'each', title: 'each its own' },
]
const FROM = [
  { value: 'out', title: 'straight out' },
  { value: 'side', title: 'the side line' },
  { value: 'centre', title: 'the centre line' },
  { value: 'bearing', title: 'the right, all round' },
]
const scope = computed(() => support.value?.scope ?? 'alike')
const pick = ref(0)

/** For each angle that may be typed: the legs it serves. */
const served = computed(() => {
  const groups = new Map<number, LegFigures[]>()
  legs.value.forEach((leg, k) => {
    const at = scope.value === 'alike' ? 0 : scope.value === 'pairs' ? leg.pair : k
    groups.set(at, [...(groups.get(at) ?? []), leg])
  })
  return [...groups.entries()].sort((a, b) => a[0] - b[0])
})
const slot = computed(() => Math.min(pick.value, served.value.length - 1))
const mine = computed(() => served.value[slot.value]?.[1] ?? [])
const at = computed(() => Math.min(slot.value, (support.value?.angles.length ?? 1) - 1))
const spec = computed(() => support.value?.angles[at.value])
const path = computed(() => `${base.value}.angles.${at.value}`)
const leg = computed(() => mine.value[0])
const ring = computed(() => ['circle', 'triangle'].includes(support.value?.placement.way ?? ''))

function written(by: string, from: string, of: LegFigures): object {
  if (by === 'splay_rake') {
    return { by, splay: of.boring.splay.value, rake: of.boring.rake.value }
  }
  if (by === 'resultant') {
    const sightlines: Record<string, number> = {
      out: of.from_out.value,
      side: of.boring.from_side?.quantity.value ?? 0,
      centre: of.boring.from_centre?.quantity.value ?? 0,
      bearing: of.bearing.value,
    }
    const resultant = of.boring.resultant.quantity.value
    return { by, resultant, sightline: sightlines[from] ?? 0, measured_from: from }
  }
  if (by === 'footprint') {
    const [width, depth] = (store.plan?.sizes ?? []).map((size) => size.figure.quantity.value)
    return { by, width, depth }
  }
  return { by }
}

/** The same lean written another way. */
function become(by: string): void {
  if (leg.value) store.set(path.value, written(by, ring.value ? 'out' : 'side', leg.value))
}
function measure(from: string): void {
  if (leg.value) store.set(path.value, written('resultant', from, leg.value))
}

/** Each pair or leg starts from the lean it has now. */
function share(to: string): void {
  const old = support.value
  if (!old) return
  let angles: object[] = [spec.value ?? {}]
  if (to !== 'alike') {
    const by = spec.value?.by ?? 'resultant'
    const from = spec.value?.by === 'resultant' ? (spec.value.measured_from ?? 'out') : 'out'
    const keys = new Map<number, LegFigures>()
    legs.value.forEach((one, k) => {
      const key = to === 'pairs' ? one.pair : k
      if (!keys.has(key)) keys.set(key, one)
    })
    angles = [...keys.entries()]
      .sort((a, b) => a[0] - b[0])
      .map(([, one]) => written(by, from, one))
  }
  pick.value = 0
  store.set(base.value, { ...old, scope: to, angles })
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
      <PieceField label="Splay, outward" :path="`${path}.splay`" />
      <PieceField label="Rake, outward" :path="`${path}.rake`" />
    </div>
    <div v-else-if="spec.by === 'resultant'" class="grid three">
      <PieceField label="Resultant" :path="`${path}.resultant`" />
      <PieceField label="Sightline" :path="`${path}.sightline`" />
      <v-select
        label="from"
        :items="FROM"
        :model-value="spec.measured_from"
        @update:model-value="measure"
      />
    </div>
    <div v-else-if="spec.by === 'footprint'" class="grid">
      <PieceField
        :label="ring ? 'Ring round the feet' : 'Feet, side to side'"
        :path="`${path}.width`"
      />
      <PieceField v-if="!ring" label="Feet, front to back" :path="`${path}.depth`" />
    </div>
    <p v-if="store.faults[path]" class="wrong" role="alert">
      {{ store.faults[path]?.allowed }} {{ store.faults[path]?.do }}
    </p>
  </section>
</template>

<style scoped src="./panel.css"></style>
