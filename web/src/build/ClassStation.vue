<script setup lang="ts">
import { ref, watch } from 'vue'

import { api, ask } from '../api/client'
import type { ClassOut } from '../api/types'
import { usePiece } from '../piece/store'
import { tried } from './asked'
import { mostOf } from '../fields/published'

/** The order of work as an exercise for a class: mixed up, put in order, handed in. */
const store = usePiece()
const learner = ref('')
const given = ref<ClassOut | null>(null)
const order = ref<{ key: string; title: string }[]>([])
const wrong = ref<{ too_early: string; wanted: string; why: string; costs: string }[] | null>(null)
const said = ref('')

/** Whether the learner has begun: the cards are not mixed anew under their hands. */
const begun = ref(false)
let asked = 0
const handedOut = (to: string): Promise<ClassOut> =>
  ask(
    api.GET('/api/pieces/{id}/class', {
      params: { path: { id: store.id }, query: { learner: to } },
    }),
  )
async function take(): Promise<void> {
  if (begun.value) return
  const turn = (asked += 1)
  await tried(said, async () => {
    const got = await handedOut(learner.value.trim())
    if (turn !== asked) return
    given.value = got
    order.value = got.steps
    wrong.value = null
    said.value = ''
  })
}
watch(
  () => store.id,
  (id) => id && void take(),
  { immediate: true },
)
function move(k: number, by: number): void {
  const to = k + by
  if (to < 0 || to >= order.value.length) return
  begun.value = true
  const made = [...order.value]
  const [one] = made.splice(k, 1)
  if (one) made.splice(to, 0, one)
  order.value = made
}
const held = ref(-1)
function drop(on: number): void {
  if (held.value >= 0) move(held.value, on - held.value)
  held.value = -1
}
async function hand(): Promise<void> {
  if (!learner.value.trim()) {
    said.value = 'Write your name first.'
    return
  }
  begun.value = true
  asked += 1
  const params = { path: { id: store.id } }
  const body = { learner: learner.value.trim(), order: order.value.map((one) => one.key) }
  await tried(said, async () => {
    wrong.value = (await ask(api.PUT('/api/pieces/{id}/class', { params, body }))).wrong
    said.value = ''
    given.value = await handedOut('')
  })
}
</script>

<template>
  <div class="station">
    <div class="left">
      <p class="who">
        <label>
          Your name
          <input
            v-model="learner"
            :maxlength="mostOf('OrderIn', 'learner', 'Sent')"
            data-learner
            @change="take"
          />
        </label>
        <v-btn size="small" :disabled="!order.length" data-hand-in @click="hand">hand it in</v-btn>
      </p>
      <p v-if="said" role="alert">{{ said }}</p>
      <p v-if="wrong && !wrong.length" class="good" role="status" data-class-good>
        Nothing comes too early: that is a good order.
      </p>
      <ol>
        <li
          v-for="(one, k) in order"
          :key="one.key"
          draggable="true"
          :data-class-step="one.key"
          @dragstart="held = k"
          @dragover.prevent
          @drop.prevent="drop(k)"
        >
          <span class="figures">{{ k + 1 }}</span>
          <span>{{ one.title }}</span>
          <button
            class="plain word"
            type="button"
            :aria-label="`${one.title}: earlier`"
            @click="move(k, -1)"
          >
            earlier
          </button>
          <button
            class="plain word"
            type="button"
            :aria-label="`${one.title}: later`"
            @click="move(k, 1)"
          >
            later
          </button>
        </li>
      </ol>
    </div>
    <aside class="panel">
      <template v-if="wrong?.length">
        <h2>What comes too early</h2>
        <p v-for="one in wrong" :key="one.why" class="bad" data-class-wrong>
          <b>{{ one.too_early }}</b> before <b>{{ one.wanted }}</b>: {{ one.why }}. What it costs:
          {{ one.costs }}.
        </p>
      </template>
      <template v-if="given?.handed_in.length">
        <h2>Handed in</h2>
        <p v-for="one in given.handed_in" :key="one.learner" data-handed-in>
          {{ one.learner }}: {{ one.wrong ? `${one.wrong} reasons broken` : 'a good order' }}
        </p>
        <h2>What most of them got wrong</h2>
        <p v-if="!given.common.length">Nothing.</p>
        <p v-for="one in given.common.slice(0, 8)" :key="one.why" data-common>
          <b>{{ one.learners }} of {{ given.handed_in.length }}:</b> {{ one.why }}
          <span class="quiet">({{ one.example }})</span>
        </p>
      </template>
      <p class="quiet small">
        Every learner's own readings: make as many of the piece as there are learners, one number
        each.
      </p>
    </aside>
  </div>
</template>

<style scoped src="../stations/station.css"></style>
<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
.who {
  display: flex;
  gap: 1rem;
  align-items: center;
  padding: 0.4rem 0;
}
input {
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 5px 8px;
}
ol {
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 2rem 1fr auto auto;
  gap: 0 1rem;
  align-items: center;
  border-top: 1px solid var(--line);
  min-height: 34px;
}
.bad {
  border-left: 6px double var(--cut);
  padding-left: 8px;
}
.good {
  border-left: 6px solid var(--measured);
  padding-left: 8px;
}
.small {
  font-size: 0.88rem;
}
</style>
