<script setup lang="ts">
import { computed } from 'vue'

import type { Figure, Proof } from '../api/types'
import FigureText from '../fields/FigureText.vue'
import WhyFigure from '../fields/WhyFigure.vue'
import { usePiece } from '../piece/store'
import ProofField from './ProofField.vue'

/** The proofs of a card, each with its expected value and a field to answer it. */
const props = defineProps<{
  /** Ids of the proofs. */
  ids: string[]
  /** Other ways to check the same, by rule alone. */
  checks: Figure[]
  /** Whether each field says itself what is expected, for many unlike ones; no by default. */
  compact?: boolean
  /** Whether the fields stand three abreast, for many short ones; no by default. */
  narrow?: boolean
  /** Shorter names of the fields, by proof; their own by default. */
  labels?: Record<string, string>
}>()
const store = usePiece()
const proofs = computed(() =>
  (store.plan?.proofs ?? [])
    .filter((p) => props.ids.includes(p.id))
    .sort((a, b) => props.ids.indexOf(a.id) - props.ids.indexOf(b.id)),
)

/** What the instrument said, where it was asked for one of these. */
const heard = computed(() =>
  store.heard && props.ids.includes(store.heard.proof) ? store.heard : null,
)

/** Proofs with one question and one answer to expect stand together. */
const asked = computed(() => {
  const found = new Map<string, Proof[]>()
  for (const proof of proofs.value) {
    const key = [proof.read_on, proof.expected.text, proof.how].join()
    found.set(key, [...(found.get(key) ?? []), proof])
  }
  return [...found.values()]
})

/** Enter goes to the next proof, so that a gauge that types works as it is. */
function next(event: KeyboardEvent): void {
  const all = [...document.querySelectorAll<HTMLInputElement>('.proofs input')]
  all[all.indexOf(event.target as HTMLInputElement) + 1]?.focus()
}
</script>

<template>
  <section v-if="proofs.length" class="proofs" aria-label="Proof" @keydown.enter="next">
    <p v-if="heard" class="heard" :class="heard.state" role="status" data-heard>{{ heard.said }}</p>
    <ul v-if="compact" :class="narrow ? 'narrow' : 'few'">
      <ProofField
        v-for="proof in proofs"
        :key="proof.id"
        :proof="proof"
        :label="labels?.[proof.id]"
        compact
      />
    </ul>
    <div v-for="[first, ...rest] in compact ? [] : asked" :key="first?.id">
      <template v-if="first">
        <p class="ask">
          <strong>Prove it</strong>
          <span>{{ first.read_on.toLowerCase() }}: expect</span>
          <FigureText class="expect" :text="first.expected.text" />
          <span class="quiet"
            >near enough {{ first.near.text }}; {{ first.matters
            }}{{ first.usual ? `; your own readings lie within ${first.usual.text}` : '' }}</span
          >
        </p>
        <ul :class="{ few: !first.leg }">
          <ProofField v-for="proof in [first, ...rest]" :key="proof.id" :proof="proof" />
        </ul>
        <p class="how">{{ first.how }}</p>
      </template>
    </div>
    <p v-if="!narrow && proofs.some((proof) => proof.verdict === 'off')" class="how off">
      What is not cut yet follows what was read.
    </p>
    <div class="figs">
      <WhyFigure v-for="figure in checks" :key="figure.key" :figure="figure" />
    </div>
  </section>
</template>

<style scoped>
.proofs {
  border-top: 1.5px solid var(--ink);
  padding-top: 0.4rem;
  display: grid;
  gap: 0.35rem;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.6rem;
  align-items: baseline;
}
.expect {
  font-size: 1.25rem;
  font-weight: 700;
  color: var(--measured);
}
.ask .quiet {
  font-size: 0.86rem;
}
.how {
  font-size: 1rem;
}
.how.off {
  color: var(--cut);
  font-weight: 650;
}
ul {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 0.3rem 0.7rem;
  padding-top: 0.3rem;
}
ul.narrow {
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
}
ul.few,
ul.narrow:has(.broad) {
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
}
.heard {
  font-size: 0.86rem;
  color: var(--measured);
}
.heard:not(.read) {
  color: var(--cut);
  font-weight: 600;
}
</style>
