<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { api, ask } from '../api/client'
import type { Revealed } from '../api/types'
import Choice from '../fields/Choice.vue'
import { usePiece } from '../piece/store'
import { leans } from '../stations/level/lean'
import LevelStation from '../stations/level/LevelStation.vue'
import { useShop } from '../shop/store'

/** Levelling without wood: a virtual piece hides its errors, gauges read it, cuts are made as told. */
const store = usePiece()
const shop = useShop()
const PIECES = [
  { value: 'round_three', title: 'three legs' },
  { value: 'round_four', title: 'four legs' },
  { value: 'bench', title: 'a bench' },
  { value: 'slab', title: 'a slab leg and two' },
] as const
type Start = (typeof PIECES)[number]['value']
const start = ref<Start>('round_four')
const truth = ref<Revealed | null>(null)
const lost = ref(false)

function begin(which: Start): void {
  start.value = which
  truth.value = null
  void store.rehearse(which, Math.floor(Math.random() * 2 ** 31))
}
begin('round_four')

async function look(): Promise<void> {
  if (!store.piece || !store.rehearsal) return
  try {
    truth.value = await ask(
      api.POST('/api/rehearsal/reveal', {
        body: {
          piece: store.piece,
          readings: store.told(),
          bare: shop.system,
          seed: store.rehearsal.seed,
          size: 1,
        },
      }),
    )
    lost.value = false
  } catch {
    lost.value = true
  }
}
// What was shown is of another moment once something is read or cut; an answer that comes late brings
// the same piece as a new object, and is neither.
watch(
  () => JSON.stringify([store.told(), store.piece?.levelling]),
  () => (truth.value = null),
)
const open = computed(() =>
  (store.plan?.proofs ?? []).filter(
    (p) => p.station === 'level' && p.of[0] === store.plan?.level.at(-1)?.id && !p.answer,
  ),
)
async function all(): Promise<void> {
  for (const proof of open.value) if (!(await store.take(proof.id))) return
}
</script>

<template>
  <main class="rehearsal">
    <div class="head">
      <h1>Rehearse levelling</h1>
      <Choice label="On" :items="[...PIECES]" :value="start" @choose="begin($event as Start)" />
      <button class="plain word" type="button" data-another @click="begin(start)">
        another one
      </button>
      <button v-if="open.length" class="plain word" type="button" data-all @click="all">
        take all its readings
      </button>
      <button class="plain word" type="button" data-reveal @click="look">
        show how it really stands
      </button>
    </div>
    <p v-if="lost" class="truth" role="alert">The workshop does not answer: try again.</p>
    <p v-else-if="truth" class="truth" role="status" data-truth>
      Really: rocks by {{ truth.rock.text }}, stands {{ truth.height.text }} high ({{
        truth.wanted.text
      }}
      wanted), leans {{ leans(truth.falls_right, truth.falls_back) }}. Bored off their lean:
      <span v-for="(hole, k) in truth.off" :key="hole.leg"
        >{{ hole.leg }} {{ hole.off.text }} {{ hole.more ? 'more' : 'less'
        }}{{ k + 1 < truth.off.length ? ', ' : '.' }}</span
      >
    </p>
    <p v-else class="quiet hint">
      Its legs were bored and cut by an unsteady hand, and nobody knows how. Measure it with the
      gauges, cut as told, measure again; nothing of it is kept.
    </p>
    <LevelStation v-if="store.plan && store.rehearsal" />
    <p v-else class="hint" role="status">
      {{ store.status === 'away' ? 'The workshop does not answer. Trying again.' : 'Making one.' }}
    </p>
  </main>
</template>

<style scoped>
.rehearsal {
  display: flex;
  flex-direction: column;
  height: calc(100vh - 47px);
  min-height: 620px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.4rem;
  align-items: baseline;
  padding: 0.5rem 1.25rem 0.1rem;
}
h1 {
  font-size: 1.25rem;
}
.hint,
.truth {
  padding: 0.15rem 1.25rem 0.4rem;
  border-bottom: 1.5px solid var(--ink);
  font-size: 0.92rem;
}
.truth {
  color: var(--measured);
  font-weight: 600;
}
@media (max-width: 900px) {
  .rehearsal {
    height: auto;
  }
}
</style>
