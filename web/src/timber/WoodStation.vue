<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { api, ask } from '../api/client'
import type { StockOut, WoodNeed } from '../api/types'
import { tried } from '../build/asked'
import BareNumber from '../build/BareNumber.vue'
import TypedField from '../fields/TypedField.vue'
import { usePiece } from '../piece/store'
import { useShop } from '../shop/store'
import BoardRow from './BoardRow.vue'
import LogEnd from './LogEnd.vue'
import SlabBoard from './SlabBoard.vue'
import { outlineOf, roomOf, times } from './stock'
import TakenHatch from './TakenHatch.vue'
import { useWood } from './wood'

/** The wood of the piece: what it needs, out of what it is cut, in which order, what is missing. */
const store = usePiece()
const shop = useShop()
const {
  wood,
  said,
  faults,
  looking,
  carried,
  open,
  layOut,
  cancel,
  choose,
  carry,
  putDown,
  reserve,
  giveBack,
  sawn,
} = useWood()
// What it needs follows the piece: asked for again when that was saved.
watch(
  () => [store.id, store.status === 'saved', shop.system] as const,
  ([id, saved]) => id && saved && void open(id),
  { immediate: true },
)
const lit = ref('')
const stock = computed(() => new Map(wood.value?.stock.map((one) => [one.id, one])))
const layout = computed(() => wood.value?.layout ?? null)
const place = ref<HTMLElement>()
const { width } = useElementSize(place)
const scale = computed(() => {
  const boards = (layout.value?.boards ?? []).map((cut) => stock.value.get(cut.stock))
  const long = Math.max(...boards.map((one) => (one ? roomOf(outlineOf(one.item)).width : 0)), 800)
  return Math.max(0.08, (width.value - 30) / long)
})

const parts = (id: string) =>
  carried.value?.stock === id
    ? carried.value.moved
    : {
        parts: layout.value?.slabs.find((one) => one.stock === id)?.parts ?? [],
        left: layout.value?.slabs.find((one) => one.stock === id)?.left ?? [],
      }
const wrongs = computed(() => carried.value?.moved.faults ?? layout.value?.faults ?? [])
const stopped = computed(() =>
  wrongs.value.filter((one) => one.stop).map((one) => `${one.key} ${one.number}`),
)
const keysOf = (id: string) =>
  carried.value?.stock === id
    ? []
    : (layout.value?.slabs.find((one) => one.stock === id)?.splits ?? []).flatMap((one) =>
        one.keys.at.map((at) => ({
          at,
          length: one.keys.length.value,
          end: one.keys.end_width.value,
          waist: one.keys.waist.value,
        })),
      )
const photoOf = (one: StockOut): string =>
  one.photo ? `/api/timber/${one.id}/photo?${encodeURIComponent(one.photo.taken)}` : ''

/** What a need is taken from. */
function from(need: WoodNeed): string {
  const names = new Map<string, number>()
  const add = (id: string, many: number): void => {
    const name = stock.value.get(id)?.item.name ?? ''
    names.set(name, (names.get(name) ?? 0) + many)
  }
  for (const cut of layout.value?.boards ?? [])
    for (const blank of cut.blanks) if (blank.key === need.key) add(cut.stock, 1)
  for (const cut of layout.value?.slabs ?? [])
    for (const part of cut.parts) if (part.key === need.key) add(cut.stock, 1)
  for (const cut of layout.value?.logs ?? []) if (cut.key === need.key) add(cut.stock, cut.takes)
  return [...names].map(([name, many]) => (many > 1 ? `${name} (${many})` : name)).join(', ')
}
const missing = (need: WoodNeed): number =>
  layout.value?.missing.find((one) => one.key === need.key)?.count ?? 0
const percent = (share: number): string => `${Math.round(share * 100)} %`
const weight = computed(() => {
  const kg = wood.value?.effects.weight_kg ?? 0
  return shop.system === 'inch' ? `${(kg / 0.45359237).toFixed(1)} lb` : `${kg.toFixed(1)} kg`
})
const cost = computed(() => {
  const ids = new Set([
    ...(layout.value?.boards ?? []).map((one) => one.stock),
    ...(layout.value?.slabs ?? []).map((one) => one.stock),
    ...(layout.value?.logs ?? []).map((one) => one.stock),
  ])
  return [...ids].reduce((sum, id) => sum + (stock.value.get(id)?.item.cost ?? 0), 0)
})
const FIGURES: ['kerf' | 'trim' | 'planing' | 'margin' | 'keep' | 'keep_wide', string][] = [
  ['kerf', 'The saw takes'],
  ['trim', 'Off each end'],
  ['planing', 'Planing takes'],
  ['margin', 'Round a seat'],
  ['keep', 'Leftover kept from'],
  ['keep_wide', 'and so wide'],
]
const fault = (name: string) => {
  const text = faults.value[name]
  return text ? { field: name, got: '', allowed: '', do: text, what: '', said: text } : undefined
}
let count = 0
let before = ''
/** How damp the shop's air is, from the hygrometer. */
async function air(): Promise<void> {
  await tried(said, async () => {
    count += 1
    const got = await ask(api.POST('/api/timber/air', { body: { count, before } }))
    before = got.line || before
    said.value = got.said
    if (got.value !== null) await choose({ shop_rh: got.value })
  })
}
/** Take a piece of wood among those it may come from, or out of them; with none, all that is free. */
function pickStock(id: string): void {
  const had = wood.value?.document.out_of ?? []
  void choose({ out_of: had.includes(id) ? had.filter((one) => one !== id) : [...had, id] })
}
/** The seat is glued from boards of these widths: a choice of the piece itself, undone like any other. */
function glueFrom(widths: { value: number }[]): void {
  store.set(
    'top.boards',
    widths.map((one) => one.value),
  )
}
/** The needs whose allowances are looked at. */
const unfolded = ref(new Set<string>())
function unfold(key: string, event: Event): void {
  const open = (event.target as HTMLDetailsElement).open
  unfolded.value = new Set([...unfolded.value].filter((one) => one !== key))
  if (open) unfolded.value.add(key)
}
const layers = (need: WoodNeed, many: number): Promise<void> => {
  const others = (wood.value?.document.layers ?? []).filter((one) => one.key !== need.key)
  return choose({ layers: many > 1 ? [...others, { key: need.key, layers: many }] : others })
}
</script>

<template>
  <div class="station">
    <div ref="place" class="left">
      <p v-if="said" class="care" role="status" data-wood-said>{{ said }}</p>
      <div v-if="wood" class="acts">
        <template v-if="wood.reserved">
          <b data-reserved>Reserved for this piece.</b>
          <button class="plain word" type="button" data-give-back @click="giveBack">
            give it back
          </button>
        </template>
        <template v-else>
          <button class="plain word" type="button" data-lay-out @click="layOut">
            lay it out anew
          </button>
          <button
            v-if="layout && wood.stock.length"
            class="do"
            type="button"
            :disabled="looking"
            data-reserve
            @click="reserve"
          >
            reserve this wood
          </button>
          <span v-if="looking" role="status">
            Looking for a plan that loses less.
            <button class="plain word" type="button" data-stop @click="cancel">stop</button>
          </span>
          <span v-else-if="layout?.boards.length" class="quiet small">
            {{ layout.lost.text }} lost, {{ layout.kept.text }} go back<template
              v-if="!layout.first"
              >; no plan of such cuts is better by more than {{ percent(layout.off) }}</template
            >.
          </span>
        </template>
      </div>
      <div v-if="layout?.missing.length" class="band" role="alert" data-missing>
        <p v-for="one in layout.missing" :key="one.key">
          <b>{{ one.count }} missing:</b> {{ one.name }}.
        </p>
        <p v-for="one in layout.missing.filter((m) => m.boards?.length)" :key="`g${one.key}`">
          Or glued from {{ one.boards!.length }} boards,
          {{ one.boards!.map((q) => q.text).join(', ') }}
          wide: no glue line comes near a leg hole.
          <button class="plain word" type="button" data-glue-it @click="glueFrom(one.boards!)">
            glue it so
          </button>
        </p>
        <p v-if="layout.makes !== null && (store.piece?.make ?? 1) > 1">
          The pile gives {{ layout.makes }} of {{ store.piece?.make }}.
        </p>
        <p v-for="one in layout.buy" :key="one.text" data-buy>To get: {{ one.text }}.</p>
      </div>
      <ul class="findings">
        <li
          v-for="(one, k) in wrongs"
          :key="`w${k}`"
          :class="one.stop ? 'stop' : 'caution'"
          :data-place-fault="one.code"
        >
          <strong>{{ one.stop ? 'Stop' : 'Caution' }}.</strong> {{ one.text }} {{ one.mend }}
        </li>
        <li
          v-for="(one, k) in wood?.findings ?? []"
          :key="k"
          :class="one.level"
          :data-finding="one.code"
        >
          <strong
            >{{
              one.level === 'note' ? 'Note' : one.level === 'stop' ? 'Stop' : 'Caution'
            }}.</strong
          >
          {{ one.text }} {{ one.mend }}
        </li>
      </ul>
      <p v-for="line in layout?.cautions ?? []" :key="line" class="care small" data-caution>
        {{ line }}
      </p>
      <section v-for="cut in layout?.slabs ?? []" :key="cut.stock" class="one">
        <template v-if="stock.get(cut.stock)">
          <h2>
            {{ stock.get(cut.stock)!.item.name }}
            <span class="quiet small">{{ stock.get(cut.stock)!.text }}</span>
            <template v-if="wood?.reserved">
              <button
                class="plain word"
                type="button"
                :data-sawn="stock.get(cut.stock)!.item.name"
                @click="sawn(cut.stock, wood.sawn.includes(cut.stock))"
              >
                {{ wood.sawn.includes(cut.stock) ? 'not sawn after all' : 'sawn' }}
              </button>
            </template>
          </h2>
          <SlabBoard
            :stock="stock.get(cut.stock)!"
            :parts="parts(cut.stock).parts"
            :left="parts(cut.stock).left"
            :keys="keysOf(cut.stock)"
            :wrong="stopped"
            :live="!wood?.reserved"
            :photo="photoOf(stock.get(cut.stock)!)"
            @move="(part, by, final) => (final ? putDown(part, by) : carry(cut.stock, part, by))"
          />
          <div v-for="split in cut.splits" :key="split.spot" class="keys" data-keys>
            <b
              >{{ split.keys.number }} key{{ split.keys.number > 1 ? 's' : '' }} across the split</b
            >
            <span class="figures">{{ split.keys.length.text }}</span> long,
            <span class="figures">{{ split.keys.end_width.text }}</span> wide, waist
            <span class="figures">{{ split.keys.waist.text }}</span>,
            <span class="figures">{{ split.keys.thickness.text }}</span> thick
            <p v-for="line in split.keys.told" :key="line">{{ line }}</p>
          </div>
        </template>
      </section>
      <section
        v-for="cut in layout?.boards ?? []"
        :key="cut.stock"
        class="one"
        :data-board="cut.stock"
      >
        <template v-if="stock.get(cut.stock)">
          <h2>
            {{ stock.get(cut.stock)!.item.name }}
            <span class="quiet small">{{ stock.get(cut.stock)!.text }}</span>
            <button
              v-if="wood?.reserved"
              class="plain word"
              type="button"
              :data-sawn="stock.get(cut.stock)!.item.name"
              @click="sawn(cut.stock, wood.sawn.includes(cut.stock))"
            >
              {{ wood.sawn.includes(cut.stock) ? 'not sawn after all' : 'sawn' }}
            </button>
          </h2>
          <BoardRow :stock="stock.get(cut.stock)!" :cut="cut" :scale="scale" :lit="lit" />
          <details>
            <summary>{{ cut.told.length - 1 }} cuts, in their order</summary>
            <p>{{ cut.told[0] }}</p>
            <ol>
              <li v-for="(line, k) in cut.told.slice(1)" :key="k">{{ line }}</li>
            </ol>
          </details>
        </template>
      </section>
      <section v-for="cut in layout?.logs ?? []" :key="cut.stock" class="one" data-log>
        <template v-if="stock.get(cut.stock)">
          <h2>
            {{ stock.get(cut.stock)!.item.name }}
            <span class="quiet small">{{ stock.get(cut.stock)!.text }}</span>
            <button
              v-if="wood?.reserved"
              class="plain word"
              type="button"
              :data-sawn="stock.get(cut.stock)!.item.name"
              @click="sawn(cut.stock, wood.sawn.includes(cut.stock))"
            >
              {{ wood.sawn.includes(cut.stock) ? 'not split after all' : 'split or sawn' }}
            </button>
          </h2>
          <p>
            <b class="figures">{{ cut.takes }}</b> {{ cut.slices ? 'slices' : 'sticks' }}:
            {{ cut.name }}.
            <template v-if="cut.slices">It gives {{ cut.slices }}.</template>
          </p>
          <div class="ways">
            <figure v-for="way in cut.billets" :key="way.way">
              <LogEnd :stock="stock.get(cut.stock)!" :billets="way" />
              <figcaption>
                <b>{{ way.way }}: {{ way.total }}</b> ({{ way.each }} at the small end,
                {{ way.lengths }}
                along)
                {{ way.splits.join(' ') }}
              </figcaption>
            </figure>
          </div>
          <p v-for="line in cut.slice?.told ?? []" :key="line">{{ line }}</p>
        </template>
      </section>
    </div>
    <aside v-if="wood" class="panel">
      <h2>What it needs</h2>
      <table>
        <thead>
          <tr>
            <th scope="col"></th>
            <th scope="col">blank</th>
            <th scope="col">from</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="need in wood.needs"
            :key="need.key"
            :data-need="need.key"
            tabindex="0"
            @pointerenter="lit = need.key"
            @pointerleave="lit = ''"
            @focus="lit = need.key"
            @blur="lit = ''"
          >
            <td>
              <details @toggle="unfold(need.key, $event)">
                <summary>
                  <b class="figures">{{ need.count }}</b> {{ need.name }}
                  <template v-if="need.spare"
                    >, {{ need.spare }} of them spare or for practice</template
                  >
                </summary>
                <template v-if="unfolded.has(need.key)">
                  <p v-for="more in need.allowances" :key="more.what" class="small">
                    <span class="figures">+ {{ more.amount.text }}</span> {{ more.what }}
                  </p>
                  <p v-if="need.grain" class="small">{{ need.grain }}</p>
                  <p v-if="need.rings" class="small">{{ need.rings }}</p>
                  <label v-if="need.sort === 'strip'" class="small">
                    glued from
                    <select
                      :value="need.layers"
                      :aria-label="`Layers of ${need.name}`"
                      :disabled="wood.reserved"
                      @change="layers(need, Number(($event.target as HTMLSelectElement).value))"
                    >
                      <option v-for="n in 4" :key="n" :value="n">
                        {{ n === 1 ? 'one piece' : `${n} layers` }}
                      </option>
                    </select>
                  </label>
                </template>
              </details>
            </td>
            <td class="figures">{{ times(need.blank) }}</td>
            <td>
              {{ from(need) }}
              <b v-if="missing(need)" class="wrong">{{ missing(need) }} missing</b>
            </td>
          </tr>
        </tbody>
      </table>
      <h2>What it does</h2>
      <dl>
        <dt>Weighs</dt>
        <dd>
          <span class="figures" data-weight>{{ weight }}</span>
          <span class="quiet"> in {{ [...new Set(wood.effects.woods)].join(' and ') }}</span>
        </dd>
        <template v-if="cost">
          <dt>Wood cost</dt>
          <dd class="figures">{{ cost }}</dd>
        </template>
        <dt>Air there</dt>
        <dd>leads to {{ wood.effects.home.leads_to.toFixed(1) }} %</dd>
        <template v-if="wood.effects.moves">
          <dt>Seat</dt>
          <dd data-moves>
            {{ wood.effects.moves.told.join(' ') }}
            <template v-if="Math.abs(wood.effects.moves.holes.value) >= 0.05">
              Leg holes come {{ wood.effects.moves.holes.text.replace('-', '') }}
              {{ wood.effects.moves.holes.value < 0 ? 'closer' : 'further apart' }}.
            </template>
          </dd>
        </template>
        <template v-if="wood.effects.tenons">
          <dt>Tenons</dt>
          <dd data-tenons>
            Dry to about {{ wood.effects.tenons.wanted.toFixed(0) }} %: each
            {{ wood.effects.tenons.diameter.text }} one grows
            {{ wood.effects.tenons.tighter.text }} tighter in its seat.
            {{ wood.effects.tenons.told }}
          </dd>
        </template>
      </dl>
      <fieldset :disabled="wood.reserved" class="choices">
        <legend>Chosen</legend>
        <label class="pick">
          <span>Legs, stretchers, frames of</span>
          <select
            :value="wood.document.species ?? ''"
            data-species
            @change="choose({ species: ($event.target as HTMLSelectElement).value })"
          >
            <option value="">any one kind</option>
            <option v-for="name in wood.species" :key="name">{{ name }}</option>
          </select>
        </label>
        <label class="pick">
          <span>Seat or tabletop of</span>
          <select
            :value="wood.document.top_species ?? ''"
            data-top-species
            @change="choose({ top_species: ($event.target as HTMLSelectElement).value })"
          >
            <option value="">any kind</option>
            <option v-for="name in wood.species" :key="name">{{ name }}</option>
          </select>
        </label>
        <details v-if="!wood.reserved" data-out-of>
          <summary>
            {{
              wood.document.out_of?.length
                ? `Out of ${wood.document.out_of.length} chosen`
                : 'Out of all that is free'
            }}
          </summary>
          <label v-for="one in wood.free" :key="one.id" class="small pickone">
            <input
              type="checkbox"
              :checked="wood.document.out_of?.includes(one.id)"
              :data-out="one.name"
              @change="pickStock(one.id)"
            />
            {{ one.name }} <span class="quiet">{{ one.text }}</span>
          </label>
        </details>
        <div class="fields">
          <TypedField
            v-for="[name, label] in FIGURES"
            :key="name"
            :label="label"
            :text="wood.chosen[name]?.text ?? ''"
            :fault="fault(name)"
            :stamp="wood"
            :data-wood-field="name"
            @commit="choose({ [name]: $event })"
          />
        </div>
        <div class="fields">
          <BareNumber
            label="Where it will live, °C"
            :value="wood.document.home_c ?? 21"
            :least="-20"
            :most="60"
            @commit="(c) => choose({ home_c: c ?? 21 })"
          />
          <BareNumber
            label="Damp there, %"
            :value="wood.document.home_rh ?? 40"
            :least="0"
            :most="100"
            @commit="(rh) => choose({ home_rh: rh ?? 40 })"
          />
          <BareNumber
            label="Damp in the shop, %"
            :value="wood.document.shop_rh ?? 50"
            :least="0"
            :most="100"
            @commit="(rh) => choose({ shop_rh: rh ?? 50 })"
          />
        </div>
        <button
          v-if="shop.shop?.instruments !== 'none'"
          class="plain word"
          type="button"
          data-hygrometer
          @click="air"
        >
          read the hygrometer
        </button>
        <button
          v-if="wood.document.laid?.length"
          class="plain word"
          type="button"
          data-first-places
          @click="choose({ laid: [] })"
        >
          lay the seat where the program would
        </button>
      </fieldset>
    </aside>
    <TakenHatch />
  </div>
</template>

<style scoped src="../stations/station.css"></style>
<style scoped>
.station {
  grid-template-columns: minmax(0, 1fr) 480px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
  align-items: baseline;
  padding: 0.2rem 0 0.4rem;
}
.do {
  font: inherit;
  font-weight: 650;
  color: var(--paper);
  background: var(--ink);
  border: 0;
  padding: 5px 14px;
  min-height: 34px;
  cursor: pointer;
}
.do:disabled {
  opacity: 0.7;
}
.band {
  border-left: 8px solid var(--caution);
  padding: 0.2rem 0.8rem;
  margin-bottom: 0.4rem;
}
.care {
  border-left: 6px double var(--caution);
  padding-left: 8px;
}
.care.small {
  margin: 4px 0;
}
.findings {
  list-style: none;
  display: grid;
  gap: 4px;
}
.findings li {
  border-left: 6px solid var(--caution);
  padding: 2px 0 2px 8px;
}
.findings li.stop {
  border-color: var(--cut);
}
.findings li.note {
  border-left: 6px double var(--line);
}
.one {
  padding: 0.4rem 0;
}
.one h2 {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
}
.keys {
  border-left: 3px solid var(--ink);
  padding-left: 10px;
  margin-top: 0.3rem;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 2rem;
}
.ways figure {
  max-width: 22rem;
}
ol {
  padding-left: 1.6rem;
}
table {
  border-collapse: collapse;
  width: 100%;
  table-layout: fixed;
}
th:first-child {
  width: 46%;
}
th:last-child {
  width: 22%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 4px 8px 4px 0;
  border-bottom: 1px solid var(--line);
}
th {
  font-weight: 500;
  font-size: 0.88rem;
}
td.figures {
  white-space: normal;
  font-size: 0.92rem;
}
dl {
  display: grid;
  grid-template-columns: 5.5rem 1fr;
  gap: 0.3rem 0.8rem;
}
dt {
  font-weight: 650;
}
.panel h2 {
  padding: 0.5rem 0 0.2rem;
}
.choices {
  border: 0;
  padding: 0;
  margin: 0.5rem 0 0;
  min-width: 0;
}
legend {
  font-weight: 650;
}
.pickone {
  display: block;
}
.pick {
  display: grid;
  grid-template-columns: 12rem minmax(0, 1fr);
  align-items: center;
  padding: 2px 0;
}
select {
  font: inherit;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  min-height: 30px;
  min-width: 0;
}
.fields :deep(.number) {
  flex: 1 1 110px;
}
.wrong {
  color: var(--cut);
}
.small {
  font-size: 0.88rem;
  font-weight: 400;
}
@media (max-width: 1100px) {
  .station {
    grid-template-columns: minmax(0, 1fr);
  }
}
/* What it is cut from, and what is missing, comes before what it depends on. */
@media (max-width: 600px) {
  .panel {
    order: 1;
  }
}
</style>
