<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import type { StockOut } from '../api/types'
import { usePiece } from '../piece/store'
import { useShop } from '../shop/store'
import BoardRow from './BoardRow.vue'
import CutHead from './CutHead.vue'
import LogEnd from './LogEnd.vue'
import SlabBoard from './SlabBoard.vue'
import { outlineOf, roomOf } from './stock'
import TakenHatch from './TakenHatch.vue'
import { useWood } from './wood'
import WoodChosen from './WoodChosen.vue'
import WoodDoes from './WoodDoes.vue'
import WoodNeeds from './WoodNeeds.vue'

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

const percent = (share: number): string => `${Math.round(share * 100)} %`
/** The seat is glued from boards of these widths: a choice of the piece itself, undone like any other. */
function glueFrom(widths: { value: number }[]): void {
  store.set(
    'top.boards',
    widths.map((one) => one.value),
  )
}
const layers = (key: string, many: number): Promise<void> => {
  return choose((now) => {
    const others = (now.layers ?? []).filter((one) => one.key !== key)
    return { layers: many > 1 ? [...others, { key, layers: many }] : others }
  })
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
          <CutHead
            :stock="stock.get(cut.stock)!"
            :reserved="wood?.reserved ?? false"
            :sawn="wood?.sawn.includes(cut.stock) ?? false"
            @sawn="(undo) => sawn(cut.stock, undo)"
          />
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
            <template v-if="split.keys.number">
              <b
                >{{ split.keys.number }} key{{ split.keys.number > 1 ? 's' : '' }} across the
                split</b
              >
              <span class="figures">{{ split.keys.length.text }}</span> long,
              <span class="figures">{{ split.keys.end_width.text }}</span> wide, waist
              <span class="figures">{{ split.keys.waist.text }}</span>,
              <span class="figures">{{ split.keys.thickness.text }}</span> thick
            </template>
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
          <CutHead
            :stock="stock.get(cut.stock)!"
            :reserved="wood?.reserved ?? false"
            :sawn="wood?.sawn.includes(cut.stock) ?? false"
            @sawn="(undo) => sawn(cut.stock, undo)"
          />
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
          <CutHead
            :stock="stock.get(cut.stock)!"
            :reserved="wood?.reserved ?? false"
            :sawn="wood?.sawn.includes(cut.stock) ?? false"
            split
            @sawn="(undo) => sawn(cut.stock, undo)"
          />
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
      <section v-for="cut in layout?.sticks ?? []" :key="cut.stock" class="one" data-stick>
        <template v-if="stock.get(cut.stock)">
          <CutHead
            :stock="stock.get(cut.stock)!"
            :reserved="wood?.reserved ?? false"
            :sawn="wood?.sawn.includes(cut.stock) ?? false"
            @sawn="(undo) => sawn(cut.stock, undo)"
          />
          <p>
            Made already, for {{ cut.name }}: <span class="figures">{{ cut.off.text }}</span> comes
            off its length.
          </p>
        </template>
      </section>
    </div>
    <aside v-if="wood" class="panel">
      <WoodNeeds :wood="wood" :stock="stock" @lit="lit = $event" @layers="layers" />
      <WoodDoes :wood="wood" :stock="stock" />
      <WoodChosen :wood="wood" :faults="faults" @choose="choose" @said="said = $event" />
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
