<script setup lang="ts">
import { computed, ref } from 'vue'

import type { StockOut, WoodNeed, WoodOut } from '../api/types'
import { mostOf } from '../fields/published'
import { times } from './stock'

/** Every blank a piece needs, out of what it is taken, and what is missing. */
const props = defineProps<{
  /** The wood of the piece. */
  wood: WoodOut
  /** The stock in its layout, by id. */
  stock: Map<string, StockOut>
}>()
const emit = defineEmits<{
  /** A need is pointed at, by its key; none: empty. */
  lit: [key: string]
  /** A blank is glued up from so many layers. */
  layers: [key: string, many: number]
}>()
const MOST_LAYERS = mostOf('Layers', 'layers', 'WoodChoice')
const layout = computed(() => props.wood.layout)

/** What a need is taken from. */
function from(need: WoodNeed): string {
  const names = new Map<string, number>()
  const add = (id: string, many: number): void => {
    const name = props.stock.get(id)?.item.name ?? ''
    names.set(name, (names.get(name) ?? 0) + many)
  }
  for (const cut of layout.value?.boards ?? [])
    for (const blank of cut.blanks) if (blank.key === need.key) add(cut.stock, 1)
  for (const cut of layout.value?.slabs ?? [])
    for (const part of cut.parts) if (part.key === need.key) add(cut.stock, 1)
  for (const cut of layout.value?.logs ?? []) if (cut.key === need.key) add(cut.stock, cut.takes)
  for (const cut of layout.value?.sticks ?? []) if (cut.key === need.key) add(cut.stock, 1)
  return [...names].map(([name, many]) => (many > 1 ? `${name} (${many})` : name)).join(', ')
}
const missing = (need: WoodNeed): number =>
  layout.value?.missing.find((one) => one.key === need.key)?.count ?? 0
/** The needs whose allowances are looked at. */
const unfolded = ref(new Set<string>())
function unfold(key: string, event: Event): void {
  const open = (event.target as HTMLDetailsElement).open
  unfolded.value = new Set([...unfolded.value].filter((one) => one !== key))
  if (open) unfolded.value.add(key)
}
</script>

<template>
  <section>
    <h2>What it needs</h2>
    <v-table>
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
          @pointerenter="emit('lit', need.key)"
          @pointerleave="emit('lit', '')"
          @focus="emit('lit', need.key)"
          @blur="emit('lit', '')"
        >
          <td>
            <details @toggle="unfold(need.key, $event)">
              <summary>
                <b class="figures">{{ need.count }}</b> {{ need.name
                }}{{ need.spare ? `, ${need.spare} of them spare or for practice` : '' }}
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
                    @change="
                      emit('layers', need.key, Number(($event.target as HTMLSelectElement).value))
                    "
                  >
                    <option v-for="n in MOST_LAYERS" :key="n" :value="n">
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
    </v-table>
    <template v-if="wood.fixings.length">
      <h3>Besides the wood</h3>
      <ul data-fixings>
        <li v-for="one in wood.fixings" :key="one.key">
          <b class="figures">{{ one.count }}</b> {{ one.name }},
          <span class="figures">{{ one.size }}</span>
          <span class="small for">{{ one.what_for }}</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.v-table :deep(table) {
  table-layout: fixed;
}
th:first-child {
  width: 46%;
}
th:last-child {
  width: 22%;
}
h3 {
  font-size: 0.95rem;
  margin: 0.7rem 0 0.2rem;
}
ul {
  list-style: none;
  padding: 0;
  display: grid;
  gap: 2px;
}
.for {
  padding-left: 0.6em;
}
td.figures {
  white-space: normal;
  font-size: 0.92rem;
}
</style>
