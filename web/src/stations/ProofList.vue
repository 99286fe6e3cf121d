<script setup lang="ts">
import { computed } from 'vue'

import type { Figure, Proof } from '../api/types'
import FigureText from '../fields/FigureText.vue'
import TypedField from '../fields/TypedField.vue'
import WhyFigure from '../fields/WhyFigure.vue'
import { usePiece } from '../piece/store'
import { useShop } from '../shop/store'
import GaugeButton from './GaugeButton.vue'
import ReadingMore from './ReadingMore.vue'

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
const shop = useShop()
const unit = computed(() => (shop.system === 'inch' ? ' in' : ' mm'))
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

function typed(proof: Proof): string {
  const waiting = store.unsent[proof.id]
  const told = waiting?.typed ?? store.readings.find((r) => r.proof === proof.id)?.typed ?? ''
  // The unit is only said where it is not the one of all the other figures.
  return told.endsWith(unit.value) ? told.slice(0, -unit.value.length) : told
}
const VERDICT: Record<string, string> = { fine: 'fine', off: 'off', slip: 'off' }

/** What is expected and, once read, how far off it is. */
function said(proof: Proof): string {
  const off = proof.off ? `; ${proof.off.text} ${VERDICT[proof.verdict] ?? ''}` : ''
  return `expect ${proof.expected.text}${off}`
}

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
      <li
        v-for="proof in proofs"
        :key="proof.id"
        :class="proof.verdict"
        @pointerenter="store.lit = proof.part"
      >
        <TypedField
          :label="labels?.[proof.id] ?? proof.short"
          :text="typed(proof)"
          :hint="said(proof)"
          :fault="store.faults[`readings.${proof.id}`]"
          :stamp="store.readings"
          :data-proof="proof.id"
          @commit="store.answer(proof.id, $event)"
        />
        <p v-if="proof.slip" class="slip" role="status">
          Read wrong? {{ proof.slip }}.
          <button
            class="plain word"
            type="button"
            :data-sure="proof.id"
            @click="store.answer(proof.id, typed(proof), { sure: true })"
          >
            read again: it is so
          </button>
        </p>
        <GaugeButton :proof="proof.id" />
        <ReadingMore v-if="proof.answer && !store.rehearsal" :proof="proof.id" />
      </li>
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
          <li
            v-for="proof in [first, ...rest]"
            :key="proof.id"
            :class="proof.verdict"
            @pointerenter="store.lit = proof.part"
          >
            <TypedField
              :label="proof.short"
              :text="typed(proof)"
              :fault="store.faults[`readings.${proof.id}`]"
              :stamp="store.readings"
              :data-proof="proof.id"
              @commit="store.answer(proof.id, $event)"
            />
            <span class="verdict" role="status">
              <template v-if="proof.off"
                ><FigureText :text="proof.off.text" /> {{ VERDICT[proof.verdict] }}</template
              >
            </span>
            <p v-if="proof.slip" class="slip" role="status">
              Read wrong? {{ proof.slip }}.
              <button
                class="plain word"
                type="button"
                :data-sure="proof.id"
                @click="store.answer(proof.id, typed(proof), { sure: true })"
              >
                read again: it is so
              </button>
            </p>
            <GaugeButton :proof="proof.id" />
            <ReadingMore v-if="proof.answer && !store.rehearsal" :proof="proof.id" />
          </li>
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
.ask .quiet,
.how {
  font-size: 0.86rem;
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
ul.few {
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
}
.fine .verdict {
  color: var(--measured);
}
li.off .verdict {
  color: var(--cut);
  font-weight: 650;
}
.heard {
  font-size: 0.86rem;
  color: var(--measured);
}
.heard:not(.read) {
  color: var(--cut);
  font-weight: 600;
}
li.slip .verdict,
.slip {
  color: var(--cut);
}
p.slip {
  font-size: 0.84rem;
  font-weight: 600;
  border-left: 4px double var(--cut);
  padding-left: 6px;
}
.verdict {
  font-size: 0.84rem;
  display: block;
  min-height: 1.3em;
}
</style>
