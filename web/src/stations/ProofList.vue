<script setup lang="ts">
import { computed } from 'vue'

import type { Figure, Proof } from '../api/types'
import FigureText from '../fields/FigureText.vue'
import TypedField from '../fields/TypedField.vue'
import WhyFigure from '../fields/WhyFigure.vue'
import { usePiece } from '../piece/store'

/** The proofs of a card, each with its expected value and a field to answer it. */
const props = defineProps<{
  /** Ids of the proofs. */
  ids: string[]
  /** Other ways to check the same, by rule alone. */
  checks: Figure[]
}>()
const store = usePiece()
const proofs = computed(() => (store.plan?.proofs ?? []).filter((p) => props.ids.includes(p.id)))
const first = computed(() => proofs.value[0])

function typed(proof: Proof): string {
  return store.readings.find((r) => r.proof === proof.id)?.typed ?? ''
}
const VERDICT: Record<string, string> = { fine: 'fine', off: 'off: what is not cut yet follows it' }

/** Enter goes to the next proof, so that a gauge that types works as it is. */
function next(event: KeyboardEvent): void {
  const all = [...document.querySelectorAll<HTMLInputElement>('.proofs input')]
  all[all.indexOf(event.target as HTMLInputElement) + 1]?.focus()
}
</script>

<template>
  <section v-if="first" class="proofs" aria-label="Proof">
    <h3>Prove it</h3>
    <p class="how">{{ first.how }} Near enough: {{ first.near.text }}; {{ first.matters }}.</p>
    <ul @keydown.enter="next">
      <li
        v-for="proof in proofs"
        :key="proof.id"
        :class="proof.verdict"
        @pointerenter="store.lit = `leg.${proof.leg}`"
      >
        <span class="what">Leg {{ proof.leg }}, {{ proof.read_on.toLowerCase() }}: expect</span>
        <strong><FigureText :text="proof.expected.text" /></strong>
        <TypedField
          label="reads"
          :text="typed(proof)"
          :fault="store.faults[`readings.${proof.id}`]"
          :data-proof="proof.id"
          @commit="store.answer(proof.id, $event)"
        />
        <span class="verdict" role="status">
          <template v-if="proof.off"
            ><FigureText :text="proof.off.text" /> {{ VERDICT[proof.verdict] }}</template
          >
        </span>
      </li>
    </ul>
    <dl>
      <WhyFigure v-for="figure in checks" :key="figure.key" :figure="figure" />
    </dl>
  </section>
</template>

<style scoped>
.proofs {
  border-top: 1.5px solid var(--ink);
  padding-top: 0.4rem;
  display: grid;
  gap: 0.4rem;
}
.how {
  font-size: 0.88rem;
}
ul {
  list-style: none;
  display: grid;
  gap: 0.35rem;
}
li {
  display: grid;
  grid-template-columns: 1fr auto 7.5rem 8.5rem;
  gap: 0.7rem;
  align-items: center;
  font-size: 0.92rem;
}
strong {
  font-size: 1.1rem;
}
.fine .verdict {
  color: var(--measured);
}
.off .verdict {
  color: var(--cut);
  font-weight: 650;
}
.verdict {
  font-size: 0.84rem;
}
</style>
