<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { StickPart } from '../api/types'
import Drawing from '../drawing/Drawing.vue'
import FigureText from '../fields/FigureText.vue'
import WhyFigure from '../fields/WhyFigure.vue'
import { usePiece } from '../piece/store'

/** Parts of square stock: a table of their lengths, one of them drawn and opened. */
const props = defineProps<{
  /** The parts. */
  sticks: StickPart[]
  /** Keys of the parts the card now shown is for. */
  parts: string[]
}>()
const store = usePiece()
const picked = ref('')
watch(
  () => props.parts,
  (to) => (picked.value = to[0] ?? ''),
)
const one = computed(
  () => props.sticks.find((stick) => stick.key === picked.value) ?? props.sticks[0],
)
const view = computed(() => store.drawings?.sticks.find((v) => v.name === one.value?.key))
watch([() => one.value?.key, () => store.plan], ([part]) => part && store.opens({ part }), {
  immediate: true,
})
const figures = computed(() => {
  const stick = one.value
  if (!stick) return []
  return [
    stick.overall,
    ...(stick.shoulders ? [stick.shoulders] : []),
    ...stick.arrises.map((arris) => arris.length),
    ...stick.bevels,
    ...stick.notches,
    ...(stick.arc ?? []),
    ...stick.tapers.flatMap((taper) => [taper.begins, taper.off, taper.left]),
  ]
})
</script>

<template>
  <div v-if="one" class="sticks">
    <figure>
      <figcaption>{{ view?.title }}</figcaption>
      <Drawing v-if="view" :view="view" :lit="store.lit" :letter="12" />
    </figure>
    <div class="two">
      <v-table>
        <caption>
          Every part; point at one to see it in the drawing
        </caption>
        <thead>
          <tr>
            <th scope="col">part</th>
            <th scope="col">over all</th>
            <th scope="col">stock</th>
            <th scope="col">blank</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="stick in sticks"
            :key="stick.key"
            :data-stick="stick.key"
            :class="{ lit: store.lit === stick.key, on: stick.key === one.key }"
            @pointerenter="store.lit = stick.key"
            @pointerleave="store.lit = ''"
          >
            <td>
              <button class="plain" type="button" @click="picked = stick.key">
                {{ stick.name }}
              </button>
            </td>
            <td><FigureText :text="stick.overall.quantity.text" /></td>
            <td>
              <FigureText :text="stick.stock[0]?.quantity.text ?? ''" /> ×
              <FigureText :text="stick.stock[1]?.quantity.text ?? ''" />
            </td>
            <td><FigureText :text="stick.blank.quantity.text" /></td>
          </tr>
        </tbody>
      </v-table>
      <div class="figs">
        <WhyFigure v-for="figure in figures" :key="figure.key" :figure="figure" />
      </div>
    </div>
  </div>
</template>

<style scoped>
figure :deep(svg) {
  height: 190px;
}
figcaption {
  font-size: 0.84rem;
}
.two {
  display: grid;
  grid-template-columns: 1.25fr 1fr;
  gap: 1.2rem;
  align-items: start;
  border-top: 1px solid var(--line);
  padding-top: 0.4rem;
}
@media (max-width: 700px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
