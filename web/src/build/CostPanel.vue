<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api, ask } from '../api/client'
import type { CostOut } from '../api/types'
import Choice from '../fields/Choice.vue'
import { tried, useAsked } from './asked'
import BareNumber from './BareNumber.vue'
import { long } from './long'
import { useBuild } from './store'
import { vStands } from '../fields/stands'
import { mostOf } from '../fields/published'

/** What the piece cost, what the next one would take, and building it again. */
const build = useBuild()
const router = useRouter()
const { got, said, look } = useAsked<CostOut>(() =>
  ask(api.GET('/api/pieces/{id}/build/cost', { params: { path: { id: build.id } } })),
)
watch(
  () => build.build,
  (there) => there && void look(),
  { immediate: true },
)
const money = (value: number): string =>
  `${value.toFixed(value < 100 ? 2 : 0)}${got.value?.money ? ` ${got.value.money}` : ''}`
const spent = computed(() => build.build?.document.spent ?? [])
const what = ref('')
const amount = ref('')
const sort = ref<'wood' | 'finish' | 'hardware' | 'other'>('wood')
const SORTS = ['wood', 'finish', 'hardware', 'other'].map((value) => ({ value, title: value }))

async function rate(change: { rate?: number; money?: string }): Promise<void> {
  const had = { rate: got.value?.rate ?? 0, money: got.value?.money ?? '' }
  const keep = () => ask(api.PUT('/api/pieces/rate', { body: { ...had, ...change } }))
  if (await tried(said, keep)) await look()
}
async function add(): Promise<void> {
  const paid = Number(amount.value.replace(',', '.'))
  if (!what.value.trim() || !(paid >= 0)) {
    said.value = 'Type what it was and what it cost, a number.'
    return
  }
  const one = { what: what.value.trim(), sort: sort.value, amount: paid }
  if (await build.change((own) => ({ spent: [...(own.spent ?? []), one] }))) {
    what.value = amount.value = said.value = ''
  }
}
const drop = (k: number): Promise<boolean> =>
  build.change((own) => ({ spent: (own.spent ?? []).filter((_, at) => at !== k) }))

async function again(as_built: boolean): Promise<void> {
  const params = { path: { id: build.id } }
  await tried(said, async () => {
    const made = await ask(api.POST('/api/pieces/{id}/again', { params, body: { as_built } }))
    await router.push(`/piece/${made.id}/work`)
  })
}
</script>

<template>
  <aside v-if="got" class="cost" aria-label="What it cost">
    <h2>What it cost</h2>
    <v-table v-if="got.cost.worked.length">
      <tbody>
        <tr v-for="one in got.cost.worked" :key="one.called">
          <td>{{ one.called }}</td>
          <td class="figures">{{ long(one.minutes) }}</td>
          <td v-if="got.rate" class="figures">{{ money(one.money) }}</td>
        </tr>
        <tr class="sum">
          <td>hours</td>
          <td class="figures" data-hours-sum>{{ long(got.cost.hours * 60) }}</td>
          <td v-if="got.rate" class="figures">{{ money(got.cost.labour) }}</td>
        </tr>
      </tbody>
    </v-table>
    <p v-else class="quiet">No minutes are counted yet: the bench's timer does, or type them.</p>
    <div class="rate">
      <BareNumber
        label="An hour of mine"
        :value="got.rate || null"
        :least="0"
        :most="100000"
        data-rate
        @commit="(value) => rate({ rate: value ?? 0 })"
      />
      <label>
        in
        <input
          v-stands="got.money"
          :maxlength="mostOf('RateIO', 'money', 'Sent')"
          data-money
          @change="rate({ money: ($event.target as HTMLInputElement).value })"
        />
      </label>
    </div>
    <ul v-if="spent.length" class="spent">
      <li v-for="(one, k) in spent" :key="k">
        {{ one.what }} <span class="quiet">{{ one.sort }}</span>
        <span class="figures">{{ money(one.amount) }}</span>
        <button
          class="plain word"
          type="button"
          :aria-label="`Take ${one.what} away`"
          @click="drop(k)"
        >
          away
        </button>
      </li>
    </ul>
    <form class="add" @submit.prevent="add">
      <input
        v-model="what"
        :maxlength="mostOf('Spent', 'what', 'Build')"
        placeholder="what was paid for"
        aria-label="What was paid for"
        data-spent-what
      />
      <input
        v-model="amount"
        inputmode="decimal"
        maxlength="12"
        placeholder="how much"
        aria-label="How much"
        data-spent-amount
      />
      <button class="plain word" type="submit" data-spent-add>add</button>
    </form>
    <Choice label="It is" :items="SORTS" :value="sort" @choose="sort = $event as typeof sort" />
    <p v-if="got.cost.total" class="total" data-total>In all {{ money(got.cost.total) }}</p>
    <p v-if="got.cost.mishaps">
      {{ got.cost.mishaps }} {{ got.cost.mishaps === 1 ? 'mishap' : 'mishaps' }},
      {{ got.cost.scrapped }} {{ got.cost.scrapped === 1 ? 'part' : 'parts' }} scrapped.
    </p>
    <h3>What the next would take</h3>
    <p v-for="one in got.cost.next" :key="one.pieces" data-next-one>
      {{ one.pieces === 1 ? 'One' : one.pieces }}:
      <b class="figures">{{ long(one.low_h * 60) }} to {{ long(one.high_h * 60) }}</b
      ><template v-if="got.rate">, {{ money(one.low) }} to {{ money(one.high) }}</template>
      <span class="quiet small">
        {{ one.own > 0 ? `${Math.round(one.own * 100)} % by your own record` : 'as is usual' }}
      </span>
    </p>
    <p class="acts">
      <v-btn size="small" data-again-planned @click="again(false)">build it again</v-btn>
      <v-btn size="small" data-again-built @click="again(true)"
        >again, leaning as it was read</v-btn
      >
    </p>
    <p v-if="said" role="status">{{ said }}</p>
  </aside>
</template>

<style scoped>
.cost {
  display: grid;
  gap: 0.5rem;
  align-content: start;
}
h2 {
  font-size: 1.2rem;
}
td.figures {
  text-align: right;
}
.sum td {
  font-weight: 650;
  border-top: 1.5px solid var(--ink);
}
.rate,
.add {
  display: flex;
  gap: 0.8rem;
  align-items: end;
}
.rate input,
.add input {
  font: inherit;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  padding: 6px 8px;
  min-width: 0;
}
.rate label > input {
  width: 4.5rem;
}
.add input:first-child {
  flex: 1;
}
.add input:nth-child(2) {
  width: 6rem;
}
.spent {
  list-style: none;
}
.spent li {
  display: flex;
  gap: 0.7rem;
}
.total {
  font-weight: 700;
  font-size: 1.15rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.small {
  font-size: 0.88rem;
}
</style>
