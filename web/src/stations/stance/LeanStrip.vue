<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import type { LegFigures } from '../../api/types'
import FigureText from '../../fields/FigureText.vue'
import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'

/** What the chosen lean comes to: one line for legs that lean alike, and the size over the feet. */
const store = usePiece()
const tilted = computed(() => (store.piece?.lean?.fall ?? 0) !== 0)

/** While a leg is held the strip only grows: drawings that change their size would run away under the
 * finger. */
const strip = ref<HTMLElement>()
const { height } = useElementSize(strip, undefined, { box: 'border-box' })
const tallest = ref(0)
watch(
  () => [store.moving, height.value] as const,
  ([moving, now]) => (tallest.value = moving ? Math.max(tallest.value, now) : 0),
)

/** Legs whose figures read the same stand on one line. */
const rows = computed(() => {
  const found = new Map<string, LegFigures[]>()
  for (const leg of store.plan?.legs ?? []) {
    const b = leg.boring
    const key = [b.splay, b.rake, b.resultant.quantity, leg.standing.quantity]
      .map((q) => q.text)
      .concat(b.from_side?.quantity.text ?? '', String(leg.measured))
      .join()
    found.set(key, [...(found.get(key) ?? []), leg])
  }
  return [...found.values()]
})
</script>

<template>
  <div ref="strip" class="strip" :style="{ minHeight: tallest ? `${tallest}px` : undefined }">
    <p v-if="store.plan?.numbering" class="numbering">{{ store.plan.numbering }}</p>
    <v-table v-if="rows.length">
      <thead>
        <tr>
          <th scope="col">legs</th>
          <th scope="col">splay</th>
          <th scope="col">rake</th>
          <th scope="col">resultant</th>
          <th scope="col">sightline<span class="long"> from left-right line</span></th>
          <th scope="col" class="long">from front-back line</th>
          <th v-if="tilted" scope="col">lean to the floor</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="[leg, ...rest] in rows"
          :key="leg?.number"
          :class="{ lit: [leg, ...rest].some((one) => store.lit === `leg.${one?.number}`) }"
          @pointerenter="store.lit = `leg.${leg?.number}`"
          @pointerleave="store.lit = ''"
        >
          <template v-if="leg">
            <td>
              {{ [leg, ...rest].map((one) => one.number).join(', ') }}
              <em v-if="leg.measured">as bored</em>
            </td>
            <td data-figure="splay"><FigureText :text="leg.boring.splay.text" /></td>
            <td data-figure="rake"><FigureText :text="leg.boring.rake.text" /></td>
            <td data-figure="resultant"><WhyFigure :figure="leg.boring.resultant" label="" /></td>
            <td>
              <WhyFigure v-if="leg.boring.from_side" :figure="leg.boring.from_side" label="" />
              <template v-else>none</template>
            </td>
            <td class="long">
              <WhyFigure v-if="leg.boring.from_centre" :figure="leg.boring.from_centre" label="" />
            </td>
            <td v-if="tilted"><WhyFigure :figure="leg.standing" label="" /></td>
          </template>
        </tr>
      </tbody>
    </v-table>
    <div class="figs">
      <WhyFigure v-for="size in store.plan?.sizes" :key="size.figure.key" :figure="size.figure" />
    </div>
  </div>
</template>

<style scoped>
.strip {
  border-top: 1px solid var(--line);
  padding: 0.25rem 0.9rem 0.4rem;
}
td {
  font-size: 0.98rem;
  padding: 0;
}
td :deep(.row) {
  justify-content: flex-start;
  gap: 0;
}
.figs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 2.5rem;
}
em {
  color: var(--measured);
}
@media (max-width: 600px) {
  .long {
    display: none;
  }
  .figs {
    grid-template-columns: 1fr;
  }
}
</style>
