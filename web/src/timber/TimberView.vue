<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { StockItem, StockOut, StoreOut, TakenIn } from '../api/types'
import { tried } from '../build/asked'
import { useTakeBack } from '../takeBack'
import Choice from '../fields/Choice.vue'
import { useShop } from '../shop/store'
import { KINDS, outlineOf, roomOf } from './stock'
import StockForm from './StockForm.vue'
import StockPicture from './StockPicture.vue'
import TakenHatch from './TakenHatch.vue'
import { mostOf } from '../fields/published'
import { soMany } from '../words'

/** The timber store: everything drawn at one scale, what is reserved and what will be left shaded. */
const shop = useShop()
const store = shallowRef<StoreOut>()
const said = ref('')
const words = ref('')
const species = ref('')
const kind = ref('')
const long = ref('')
const dry = ref('')
const free = ref(false)
const open = shallowRef<StockOut | null>(null)
const fresh = ref<StockItem['kind'] | ''>('')
/** Counts the forms that were opened: each begins anew. */
const turn = ref(0)
let asked = 0

async function look(): Promise<void> {
  const mine = (asked += 1)
  const query = {
    words: words.value,
    species: species.value,
    kind: kind.value as '' | 'board',
    length: long.value,
    driest: dry.value,
    bare: shop.system,
    free: free.value,
  }
  try {
    const got = await (ask(api.GET('/api/timber', { params: { query } })) as Promise<StoreOut>)
    if (mine !== asked) return
    store.value = got
    said.value = ''
  } catch (error) {
    if (mine !== asked) return
    if (error instanceof Away) {
      said.value = 'The workshop does not answer. Trying again.'
      setTimeout(() => mine === asked && void look(), 2000)
    } else if (error instanceof Refused)
      said.value = error.problem.faults?.[0]?.said ?? error.problem.detail
    else throw error
  }
}
onMounted(() => void look())
watch([species, kind, free, () => shop.system], () => void look())
let wait = 0
watch([words, long, dry], () => {
  clearTimeout(wait)
  wait = window.setTimeout(() => void look(), 250)
})

const pile = ref<HTMLElement>()
const { width } = useElementSize(pile)
const scale = computed(() => {
  const longest = Math.max(
    ...(store.value?.items ?? []).map((one) => roomOf(outlineOf(one.item)).width),
    600,
  )
  return Math.max(0.05, (Math.max(width.value, 240) - 26) / longest)
})
const GROUPS: { kind: StockItem['kind']; title: string }[] = [
  { kind: 'slab', title: 'Slabs' },
  { kind: 'board', title: 'Boards' },
  { kind: 'log', title: 'Logs' },
  { kind: 'stick', title: 'Legs and sticks' },
]
const groups = computed(() =>
  GROUPS.map((group) => ({
    ...group,
    items: (store.value?.items ?? []).filter((one) => one.item.kind === group.kind),
  })).filter((group) => group.items.length),
)
const SEARCH = [{ value: '', title: 'all' }, ...KINDS.map((k) => ({ ...k, value: k.value }))]

function show(one: StockOut | null, made: StockItem['kind'] | '' = ''): void {
  open.value = one
  fresh.value = made
  turn.value += 1
}
async function kept(got: StockOut, another: boolean): Promise<void> {
  said.value = `${got.item.name}: kept, ${got.text}.`
  const made = another ? got.item.kind : ''
  const text = said.value
  await look()
  said.value = text
  show(null, made)
}
async function throwOut(one: StockOut): Promise<void> {
  const params = { path: { id: one.id } }
  const done = await tried(said, () => ask(api.DELETE('/api/timber/{id}', { params })))
  if (!done) return
  show(null)
  await look()
  gone.value = one
}
async function takeOut(id: string): Promise<void> {
  const params = { path: { id } }
  if (await tried(said, () => ask(api.DELETE('/api/timber/{id}', { params })))) await look()
}
/** What was taken out last: it can be put back. */
const gone = shallowRef<StockOut | null>(null)
async function putBack(): Promise<void> {
  const one = gone.value
  if (!one) return
  const params = { path: { id: one.id } }
  if (await tried(said, () => ask(api.PUT('/api/timber/{id}/back', { params })))) gone.value = null
  await look()
}

const { undo, takeBack } = useTakeBack(said, look)
const input = ref<HTMLInputElement>()
const looked = shallowRef<{
  found: TakenIn
  sort: 'json' | 'csv'
  text: string
  name: string
} | null>(null)
async function chosen(): Promise<void> {
  const file = input.value?.files?.[0]
  if (input.value) input.value.value = ''
  if (!file) return
  if (file.size > 900_000) {
    said.value = 'It is larger than 900 kB: take it in in parts.'
    return
  }
  const sort = file.name.toLowerCase().endsWith('.csv') ? 'csv' : 'json'
  await taking(sort, await file.text(), file.name, false)
}
async function taking(
  sort: 'json' | 'csv',
  text: string,
  name: string,
  sure: boolean,
): Promise<void> {
  await tried(said, async () => {
    const body = { sort, text, bare: shop.system, sure }
    const found = await ask(api.POST('/api/timber/taken_in', { body }))
    looked.value = sure ? null : { found, sort, text, name }
    if (!sure) return
    await look()
    said.value = `${soMany(found.taken, 'piece of wood was', 'pieces of wood were')} taken in from ${name}.`
    undo.value = found.undo
  })
}
</script>

<template>
  <main class="timber">
    <header>
      <h1>Timber</h1>
      <label class="seek">
        <span>Look for</span>
        <input
          v-model="words"
          type="search"
          :maxlength="mostOf('/api/timber', 'words', 'Sent')"
          data-seek
        />
      </label>
      <label class="seek">
        <span>Kind of wood</span>
        <select v-model="species" data-seek-species>
          <option value="">any</option>
          <option v-for="name in store?.species ?? []" :key="name">{{ name }}</option>
        </select>
      </label>
      <label class="seek short">
        <span>At least so long</span>
        <input
          v-model="long"
          class="figures"
          :maxlength="mostOf('/api/timber', 'length', 'Sent')"
          data-seek-long
        />
      </label>
      <label class="seek short">
        <span>At most so moist, %</span>
        <input
          v-model="dry"
          class="figures"
          inputmode="decimal"
          :maxlength="mostOf('/api/timber', 'driest', 'Sent')"
          data-seek-dry
        />
      </label>
      <Choice label="Show" :items="SEARCH" :value="kind" @choose="kind = $event" />
      <v-checkbox-btn v-model="free" inline label="only what is free" data-seek-free />
    </header>
    <div class="bar">
      <span class="new">
        Put in:
        <button
          v-for="one in KINDS"
          :key="one.value"
          class="plain word"
          type="button"
          :data-new="one.value"
          @click="show(null, one.value)"
        >
          a {{ one.title }}
        </button>
      </span>
      <span class="files">
        <button class="plain word" type="button" data-take-in @click="input?.click()">
          take in a file
        </button>
        <a
          class="on"
          href="/api/timber/table"
          download="stock.csv"
          title="It cannot hold spots in slabs, thickness at places, weighings and photographs"
          data-table
          >as a table</a
        >
        <a class="on" href="/api/timber/file" download="stock.json" data-file>as a file</a>
      </span>
      <input
        ref="input"
        type="file"
        accept=".json,.csv"
        hidden
        data-take-in-file
        @change="chosen"
      />
    </div>
    <p v-if="said" role="status" class="said" data-timber-said>
      {{ said }}
      <button
        v-if="undo !== null"
        class="plain word"
        type="button"
        data-take-back
        @click="takeBack"
      >
        take it back
      </button>
    </p>
    <p v-if="gone" role="status" class="said">
      {{ gone.item.name }} was taken out.
      <button class="plain word" type="button" data-put-back @click="putBack">put it back</button>
    </p>
    <div v-if="store?.unread.length" class="band" role="status" data-unread>
      <p v-for="one in store.unread" :key="one.id">
        <b>{{ one.name }}</b> cannot be read: {{ one.why }}
        <button class="plain word" type="button" @click="takeOut(one.id)">
          take it out of the store
        </button>
      </p>
    </div>
    <div v-if="looked" class="band" role="alert" data-looked>
      <p>
        {{ looked.name }} holds {{ soMany(looked.found.count, 'piece', 'pieces') }} of wood<template
          v-if="looked.found.names.length"
          >: {{ looked.found.names.slice(0, 8).join(', ')
          }}{{ looked.found.count > 8 ? ' …' : '' }}</template
        >.
      </p>
      <ul v-if="looked.found.bad.length">
        <li v-for="bad in looked.found.bad" :key="bad.row" data-bad-row>
          <b>{{ looked.sort === 'csv' ? 'Row' : 'No.' }} {{ bad.row }}</b> cannot be taken.
          {{ bad.said }}
        </li>
      </ul>
      <p class="new">
        <button
          v-if="looked.found.count"
          class="plain word"
          type="button"
          data-sure
          @click="taking(looked.sort, looked.text, looked.name, true)"
        >
          take in {{ looked.found.count }}
        </button>
        <button class="plain word" type="button" @click="looked = null">leave it</button>
      </p>
    </div>
    <div class="two" :class="{ slab: (open?.item.kind ?? fresh) === 'slab' }">
      <section ref="pile" class="pile" aria-label="What is there">
        <template v-for="group in groups" :key="group.kind">
          <h2>{{ group.title }}</h2>
          <div class="row">
            <button
              v-for="one in group.items"
              :key="one.id"
              class="plain one"
              :class="{ open: one.id === open?.id }"
              type="button"
              :data-stock="one.item.name"
              @click="show(one)"
            >
              <StockPicture :stock="one" :scale="scale" />
              <span class="name"
                ><b>{{ one.item.name }}</b> {{ one.item.species }}
                <span class="figures small">{{ one.text }}</span></span
              >
              <span class="small">
                {{ one.moisture === null ? 'moisture not read' : `${one.moisture.toFixed(1)} %`
                }}{{ one.dries ? `; ${one.dries}` : '' }}
              </span>
              <span v-if="one.reserved_for" class="small held"
                >for {{ one.reserved_for.name }}</span
              >
            </button>
          </div>
        </template>
        <p v-if="store && !store.items.length" class="none" data-none>
          {{
            store.found
              ? 'Nothing of that kind lies here.'
              : 'Nothing lies here yet. Put in a board, a slab, a log; pieces are then laid out on it.'
          }}
        </p>
      </section>
      <aside v-if="store && (open || fresh)" class="side" aria-label="One piece of wood">
        <h2>{{ open ? open.item.name : `A ${KINDS.find((k) => k.value === fresh)?.title}` }}</h2>
        <p v-if="open?.reserved_for" class="small">
          Reserved for
          <RouterLink class="on" :to="`/piece/${open.reserved_for.id}/wood`">{{
            open.reserved_for.name
          }}</RouterLink>: changed in size or flaws, it is free again.
        </p>
        <StockForm
          :key="turn"
          :stock="open"
          :kind="fresh || 'board'"
          :store="store"
          @kept="kept"
          @shut="show(null)"
        />
        <p v-if="open">
          <button class="plain word" type="button" data-throw-out @click="throwOut(open)">
            take it out of the store
          </button>
        </p>
      </aside>
      <aside v-else-if="store" class="side quiet">
        <p>Press a piece of wood to look at it and change it.</p>
        <p class="key">
          <svg width="44" height="16" aria-hidden="true">
            <rect class="taken" x="1" y="1" width="42" height="14" />
          </svg>
          reserved for a piece
        </p>
        <p class="key">
          <svg width="44" height="16" aria-hidden="true">
            <rect class="left" x="1" y="1" width="42" height="14" />
          </svg>
          goes back to the store when it is sawn
        </p>
        <p class="key">
          <svg width="44" height="16" aria-hidden="true">
            <rect class="flaw" x="1" y="1" width="42" height="14" />
          </svg>
          a flaw
        </p>
        <p>The shop’s air leads wood to {{ store.air_leads_to.toFixed(1) }} %.</p>
      </aside>
    </div>
    <TakenHatch />
  </main>
</template>

<style scoped src="./wood.css"></style>
<style scoped>
.timber {
  padding: 0.6rem 1.25rem 2rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.2rem;
  align-items: end;
}
h1 {
  font-size: 1.4rem;
  margin-right: 0.6rem;
}
.seek {
  display: grid;
  gap: 1px;
  font-size: 0.88rem;
}
.seek input,
.seek select {
  font: inherit;
  font-size: 1rem;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  padding: 4px 7px;
  min-height: 32px;
  max-width: 13rem;
}
.short input {
  width: 8rem;
}
.bar,
.new,
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.2rem;
}
.bar {
  justify-content: space-between;
  padding: 0.5rem 0;
  border-bottom: 1.5px solid var(--ink);
}
.on {
  color: inherit;
}
.said {
  padding: 0.3rem 0;
}
.band {
  border-left: 8px solid var(--caution);
  padding: 0.4rem 0.8rem;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 430px;
  gap: 1.4rem;
  align-items: start;
}
.two.slab {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.5fr);
}
.pile h2 {
  padding: 0.6rem 0 0.2rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem 1.1rem;
  align-items: end;
}
.one {
  display: grid;
  text-align: left;
  padding: 3px;
  max-width: 100%;
  border: 2px solid transparent;
}
.one.open {
  border-color: var(--measured);
}
.name {
  font-size: 0.95rem;
}
.small {
  font-size: 0.86rem;
  white-space: normal;
}
.held {
  font-weight: 650;
}
.side {
  position: sticky;
  top: 0.5rem;
  display: grid;
  gap: 0.5rem;
  padding-top: 0.6rem;
}
.key {
  display: flex;
  gap: 0.7rem;
  align-items: center;
}
@media (max-width: 1100px) {
  .two,
  .two.slab {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    position: static;
  }
  .side:not(.quiet) {
    order: -1;
  }
}
</style>
