<script setup lang="ts">
import { computed } from 'vue'

import Drawing from '../../drawing/Drawing.vue'
import { usePiece } from '../../piece/store'

/** What to write on the work itself: paper gets lost. */
const store = usePiece()
const views = computed(() => store.drawings?.marks ?? [])
</script>

<template>
  <section class="marks" aria-label="Marks to write on the work" data-marks>
    <p class="how">
      Soft pencil, on the wood: the leg's number in strokes beside its tenon; a cross at each
      socket's middle, with an arrow to the side where the angle is acute and the angle beside it; a
      depth ring all round each tenon; at each stretcher's end the number of the leg it goes into,
      on the side away from the seat.
    </p>
    <figure v-for="view in views" :key="view.name">
      <figcaption>{{ view.title }}</figcaption>
      <Drawing :view="view" :lit="store.lit" :letter="12" @point="store.lit = $event" />
    </figure>
    <p class="how">
      Turn each tenon so that its growth rings lie along the leg's length: what swells most then
      presses on end grain and does not split the leg.
    </p>
  </section>
</template>

<style scoped>
.marks {
  display: grid;
  gap: 0.3rem;
}
figcaption {
  font-size: 0.84rem;
}
figure :deep(svg) {
  height: 92px;
}
.how {
  font-size: 0.9rem;
}
</style>
