<script setup lang="ts">
import { computed } from 'vue'

import type { LevelRound } from '../../api/types'
import WhyFigure from '../../fields/WhyFigure.vue'

/** The one block or height that marks every foot, what makes it up, and the care to take. */
const props = defineProps<{ /** The pass being worked on. */ round: LevelRound }>()
const tilted = computed(() => props.round.tilt.value > 0.005)
const sawing = computed(() => props.round.feet.some((foot) => foot.how === 'saw'))
</script>

<template>
  <section class="cut" aria-label="How to mark and cut">
    <div class="figs">
      <WhyFigure v-if="round.bench" :figure="round.bench" />
      <WhyFigure :figure="round.block" />
      <p v-if="round.block_of" class="quiet of">{{ round.block_of }}</p>
      <WhyFigure v-if="round.spacer" :figure="round.spacer" />
      <p v-if="round.spacer_of" class="quiet of">{{ round.spacer_of }}</p>
      <WhyFigure :figure="round.highest" />
    </div>
    <p v-if="tilted" class="how">
      This cut lets the top lean by {{ round.tilt.text }} to lose less of the legs.
    </p>
    <p class="care">
      Clamp or wedge the piece so that no leg can roll or spring; saw a little outside the line and
      keep the other hand behind the saw.
      <template v-if="!sawing"
        >Nothing is thick enough to saw: rub it on paper glued to a flat.</template
      >
    </p>
  </section>
</template>

<style scoped>
.cut {
  display: grid;
  gap: 0.35rem;
  border-top: 1.5px solid var(--ink);
  margin-top: 0.5rem;
  padding-top: 0.4rem;
}
.of {
  font-size: 0.84rem;
  text-align: right;
}
.how {
  font-size: 1rem;
}
.care {
  font-size: 1rem;
  border-left: 6px double var(--caution);
  padding-left: 8px;
}
</style>
