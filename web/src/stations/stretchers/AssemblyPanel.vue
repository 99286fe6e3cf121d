<script setup lang="ts">
import { computed } from 'vue'

import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'

/** The order in which it can go together, what is spread, how many joints a gluing holds. */
const store = usePiece()
const order = computed(() => store.plan?.assembly)
</script>

<template>
  <section v-if="order" class="order" aria-label="Order of assembly" data-assembly>
    <p v-if="order.apart" class="care">
      What closes at once lies up to {{ order.apart.text }} from one direction: try it dry, all of
      it, before any glue.
    </p>
    <ol>
      <li
        v-for="stage in order.stages"
        :key="stage.title"
        @pointerenter="store.lit = stage.parts.at(-1) ?? ''"
        @pointerleave="store.lit = ''"
      >
        <h2>
          {{ stage.title }}
          <span class="quiet"
            >{{ stage.joints }} {{ stage.joints === 1 ? 'joint' : 'joints' }}</span
          >
        </h2>
        <p v-for="step in stage.steps" :key="step">{{ step }}</p>
      </li>
    </ol>
    <div v-if="order.spread.length" class="figs">
      <WhyFigure v-for="figure in order.spread" :key="figure.key" :figure="figure" />
    </div>
  </section>
</template>

<style scoped>
.order {
  display: grid;
  gap: 0.6rem;
}
ol {
  padding-left: 1.4rem;
  display: grid;
  gap: 0.5rem;
}
h2 {
  font-size: 1.02rem;
}
li p {
  font-size: 0.92rem;
}
.care {
  border-left: 6px double var(--caution);
  padding-left: 8px;
}
</style>
