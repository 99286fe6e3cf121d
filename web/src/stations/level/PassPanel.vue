<script setup lang="ts">
import { computed } from 'vue'

import type { LevelPass, LevelRound } from '../../api/types'
import Choice from '../../fields/Choice.vue'
import DocumentField from '../../fields/DocumentField.vue'
import { wordsOf } from '../../fields/published'
import { usePiece } from '../../piece/store'
import ProofList from '../ProofList.vue'

/** How this pass is measured, its readings, and what comes after it. */
const props = defineProps<{
  /** The pass being worked on. */
  round: LevelRound
  /** How many passes there are. */
  count: number
}>()
const store = usePiece()
const at = computed(() => props.count - 1)
const levelling = computed(() => store.piece?.levelling)
const pass = computed(() => levelling.value?.passes?.[at.value])
const ENDS = wordsOf('Levelling', 'ends')
const PLACES = wordsOf('LevelPass', 'places')
const ways = computed(() =>
  wordsOf('LevelPass', 'way').filter((way) => props.round.ways.includes(way.value)),
)
const ids = computed(() =>
  (store.plan?.proofs ?? [])
    .filter((p) => p.station === 'level' && p.of[0] === props.round.id)
    .map((p) => p.id),
)
const hows = computed(() => [
  ...new Set((store.plan?.proofs ?? []).filter((p) => ids.value.includes(p.id)).map((p) => p.how)),
])
const path = (name: string): string => `levelling.passes.${at.value}.${name}`

function again(): void {
  const passes = levelling.value?.passes ?? []
  const last = passes.at(-1)
  if (last) store.set('levelling.passes', [...passes, { ...last, id: '' }] as LevelPass[])
}
function back(): void {
  store.set('levelling.passes', (levelling.value?.passes ?? []).slice(0, -1))
}
const full = computed(() => props.round.answered === props.round.asked)
</script>

<template>
  <section class="pass" :data-pass="round.number">
    <h2>Pass {{ round.number }}: {{ full ? 'measured' : 'measure' }}</h2>
    <div class="fields">
      <v-select
        label="How it is measured"
        :items="ways"
        :model-value="pass?.way"
        data-field="levelling.way"
        @update:model-value="store.set(path('way'), $event)"
      />
      <DocumentField path="levelling.flat" />
      <DocumentField path="levelling.lean_allowed" />
      <DocumentField v-if="pass?.way === 'bench'" :path="path('raised')" />
    </div>
    <div class="fields">
      <p v-if="round.begins" class="how" data-begins>{{ round.begins }}</p>
      <Choice
        v-if="round.choose_ends"
        label="The legs end"
        :items="ENDS"
        :value="levelling?.ends ?? 'square'"
        @choose="store.set('levelling.ends', $event)"
      />
      <Choice
        v-if="pass?.way === 'standing'"
        label="Heights of the top"
        :items="PLACES"
        :value="pass.places ?? 'edges'"
        @choose="store.set(path('places'), $event)"
      />
    </div>
    <p class="how">{{ hows.join(' ') }}</p>
    <ProofList :ids="ids" :checks="[]" compact narrow />
    <p class="said" :class="{ good: round.good }" role="status" data-good>{{ round.said }}</p>
    <p class="after">
      <button v-if="full && !round.good" class="plain word" type="button" data-again @click="again">
        cut: measure again
      </button>
      <button v-if="count > 1" class="plain word" type="button" data-back @click="back">
        take this pass back
      </button>
    </p>
  </section>
</template>

<style scoped>
.pass {
  display: grid;
  gap: 0.3rem;
}
h2 {
  font-size: 1.15rem;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.9rem;
  align-items: center;
}
.fields :deep(.v-text-field) {
  flex: 1 1 110px;
}
.fields :deep(.v-select) {
  flex: 1 0 100%;
}
.how {
  font-size: 1rem;
}
.said {
  border-left: 6px solid var(--line);
  padding-left: 8px;
}
.said.good {
  border-color: var(--measured);
  font-weight: 600;
}
.after {
  display: flex;
  gap: 1.4rem;
}
</style>
