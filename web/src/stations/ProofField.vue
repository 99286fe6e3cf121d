<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Proof } from '../api/types'
import FigureText from '../fields/FigureText.vue'
import TypedField from '../fields/TypedField.vue'
import { usePiece } from '../piece/store'
import { useShop } from '../shop/store'
import GaugeButton from './GaugeButton.vue'
import ReadingMore from './ReadingMore.vue'
import ReadWith from './ReadWith.vue'

/** One proof's field, what is thought of its answer, the gauge, and what is behind it. */
const props = defineProps<{
  /** The proof. */
  proof: Proof
  /** The field's name; the proof's own by default. */
  label?: string | undefined
  /** Whether what is expected stands under the field, for many unlike ones; no by default. */
  compact?: boolean
}>()
const store = usePiece()
const shop = useShop()
/** What it is going to be read with, where it is not what the proof names. */
const readWith = ref('')
const unit = computed(() => (shop.system === 'inch' ? ' in' : ' mm'))
const VERDICT: Record<string, string> = { fine: 'fine', off: 'off', slip: 'off' }

/** What was typed last was refused: what is thought of the answer before it is not said of that. */
const refused = computed(() => `readings.${props.proof.id}` in store.faults)
const reading = computed(() => store.readings.find((r) => r.proof === props.proof.id))
const typed = computed(() => {
  const { id } = props.proof
  const told = store.unsent[id]?.typed ?? reading.value?.shown ?? ''
  // The unit is only said where it is not the one of all the other figures.
  return told.endsWith(unit.value) ? told.slice(0, -unit.value.length) : told
})

/** What is expected and, once read, how far off it is. */
const said = computed(() => {
  const { expected, off, verdict } = props.proof
  return `expect ${expected.text}${off && !refused.value ? `; ${off.text} ${VERDICT[verdict] ?? ''}` : ''}`
})
</script>

<template>
  <li
    :class="[refused ? '' : proof.verdict, { broad: (label ?? proof.short).length > 16 }]"
    @pointerenter="store.lit = proof.part"
  >
    <TypedField
      :label="label ?? proof.short"
      :text="typed"
      :hint="compact ? said : ''"
      :fault="store.faults[`readings.${proof.id}`]"
      :stamp="() => store.readings"
      :waiting="proof.id in store.unsent"
      :data-proof="proof.id"
      @commit="store.answer(proof.id, $event, readWith ? { tool: readWith } : {})"
    />
    <span v-if="!compact" class="verdict" role="status">
      <template v-if="proof.off && !refused"
        ><FigureText :text="proof.off.text" /> {{ VERDICT[proof.verdict] }}</template
      >
    </span>
    <p v-if="reading?.as_read" class="quiet as-read" data-as-read>{{ reading.as_read }}</p>
    <p v-if="proof.slip && !refused" class="slip" role="status">
      Read wrong? {{ proof.slip }}.
      <button
        class="plain word"
        type="button"
        :data-sure="proof.id"
        @click="store.answer(proof.id, typed, { sure: true, keep: true })"
      >
        read again: it is so
      </button>
    </p>
    <GaugeButton :proof="proof.id" />
    <ReadingMore v-if="proof.answer && !store.rehearsal" :proof="proof.id" />
    <ReadWith
      v-else-if="!store.rehearsal"
      v-model="readWith"
      :name="label ?? proof.short"
      :usual="proof.read_on"
    />
  </li>
</template>

<style scoped>
:deep(.v-messages) {
  font-size: 1rem;
}
:deep(.v-messages__message) {
  line-height: 1.25;
  letter-spacing: 0;
}
:deep(.v-input__details) {
  padding-inline: 2px;
}
.verdict {
  font-size: 1rem;
  display: block;
  min-height: 1.3em;
}
.as-read {
  font-size: 0.84rem;
}
.fine .verdict {
  color: var(--measured);
}
.off .verdict {
  color: var(--cut);
  font-weight: 650;
}
.slip .verdict,
p.slip {
  color: var(--cut);
}
p.slip {
  font-size: 0.84rem;
  font-weight: 600;
  border-left: 4px double var(--cut);
  padding-left: 6px;
}
</style>
