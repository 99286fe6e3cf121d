<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import Drawing from '../../drawing/Drawing.vue'
import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'
import CardPicker from '../CardPicker.vue'
import Findings from '../Findings.vue'
import ProofList from '../ProofList.vue'
import ShapePanel from './ShapePanel.vue'
import TrialsPanel from './TrialsPanel.vue'

/** Marking out the top: one step after another, drawn, then the cross-checks. */
const store = usePiece()
const at = ref(0)
const steps = computed(() => store.plan?.layout.steps ?? [])
const here = computed(() => Math.min(at.value, steps.value.length - 1))
const step = computed(() => steps.value[here.value])
const view = computed(() =>
  store.drawings?.layout.find((one) => one.name === `step.${here.value + 1}`),
)
watch(here, (step) => step >= 0 && store.opens({ step }))
/** Whether something is bored through the top: its hand-holds. */
const bored = computed(() => (store.plan?.works ?? []).some((card) => card.station === 'top'))
const checks = computed(() => (store.plan?.layout.checks ?? []).map((check) => check.id))
</script>

<template>
  <div class="station">
    <div class="left">
      <figure class="marking">
        <figcaption>
          {{ here + 1 }} of {{ steps.length }}: {{ step?.title }}; {{ step?.face }} up
        </figcaption>
        <Drawing v-if="view" :view="view" :lit="store.lit" />
      </figure>
      <div v-if="step" class="step" data-step>
        <p class="what">{{ step.words }}</p>
        <div class="figs">
          <WhyFigure v-for="figure in step.figures" :key="figure.key" :figure="figure" />
        </div>
      </div>
      <p class="turn">
        <button class="plain word" type="button" :disabled="here === 0" @click="at = here - 1">
          back
        </button>
        <button
          class="plain word"
          type="button"
          data-next
          :disabled="here === steps.length - 1"
          @click="at = here + 1"
        >
          done, the next
        </button>
      </p>
      <ol class="steps">
        <li v-for="(one, k) in steps" :key="k">
          <button
            class="plain"
            type="button"
            :class="{ on: k === here }"
            :aria-current="k === here ? 'step' : undefined"
            @click="at = k"
          >
            {{ one.title }}
          </button>
        </li>
      </ol>
    </div>
    <aside class="panel">
      <Findings station="top" />
      <CardPicker v-if="bored" station="top" />
      <ShapePanel />
      <TrialsPanel />
      <h2>Cross-checks on the marks</h2>
      <ProofList :ids="checks" :checks="[]" compact />
    </aside>
  </div>
</template>

<style scoped src="../station.css"></style>
<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
}
.marking {
  flex: 1 1 auto;
  min-height: 260px;
  display: flex;
  flex-direction: column;
}
.marking :deep(svg) {
  flex: 1;
  min-height: 0;
}
.step {
  border-top: 1px solid var(--line);
  padding-top: 0.4rem;
  flex: none;
}
.what {
  font-size: 1.04rem;
  white-space: pre-line;
  font-weight: 600;
  padding-bottom: 0.3rem;
}
.figs {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  column-gap: 1.5rem;
}
.turn {
  display: flex;
  gap: 1.5rem;
}
.turn :disabled {
  opacity: 0.6;
}
.steps {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1.4rem;
  padding: 0.4rem 0 0 1.2rem;
  border-top: 1px solid var(--line);
}
.steps button {
  font-size: 0.92rem;
  border-bottom: 2px solid transparent;
}
.steps .on {
  border-color: var(--ink);
  font-weight: 650;
}
h2 {
  font-size: 1.05rem;
}
</style>
