<script setup lang="ts">
import { ref } from 'vue'

import { api, ask } from '../api/client'
import type { Fault, WoodChoice, WoodOut } from '../api/types'
import { tried } from '../build/asked'
import BareNumber from '../build/BareNumber.vue'
import { labelOf, numberOf, startOf } from '../fields/published'
import TypedField from '../fields/TypedField.vue'
import { useShop } from '../shop/store'

/** What is chosen about the wood of a piece: kinds, stock, what sawing takes, the airs. */
const props = defineProps<{
  /** The wood of the piece. */
  wood: WoodOut
  /** What is wrong with what was typed last, by field. */
  faults: Record<string, string>
}>()
const emit = defineEmits<{
  /** Something was chosen. */
  choose: [how: (now: WoodChoice) => Partial<WoodChoice>]
  /** There is something to say. */
  said: [text: string]
}>()
const shop = useShop()
const choose = (change: Partial<WoodChoice>): void => emit('choose', () => change)
const FIGURES = ['kerf', 'trim', 'planing', 'margin', 'keep', 'keep_wide'] as const
const AIRS = ['home_c', 'home_rh', 'shop_rh'] as const
const label = (field: string): string => labelOf('WoodChoice', field, 'WoodChoice')
const start = (field: string): number => startOf<number>('WoodChoice', field, 'WoodChoice')
const fault = (name: string): Fault | undefined => {
  const text = props.faults[name]
  return text ? { field: name, got: '', allowed: '', do: text, what: '', said: text } : undefined
}
let count = 0
let before = ''
/** How damp the shop's air is, from the hygrometer. */
async function air(): Promise<void> {
  const wrong = ref('')
  await tried(wrong, async () => {
    count += 1
    const got = await ask(api.POST('/api/timber/air', { body: { count, before } }))
    before = got.line || before
    emit('said', got.said)
    if (got.value !== null) choose({ shop_rh: got.value })
  })
  if (wrong.value) emit('said', wrong.value)
}
/** Take a piece of wood among those it may come from, or out of them; with none, all that is free. */
function pickStock(id: string): void {
  emit('choose', ({ out_of: had = [] }) => ({
    out_of: had.includes(id) ? had.filter((one) => one !== id) : [...had, id],
  }))
}
</script>

<template>
  <fieldset :disabled="wood.reserved" class="choices">
    <legend>Chosen</legend>
    <label class="pick">
      <span>{{ label('species') }}</span>
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
      <span>{{ label('top_species') }}</span>
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
      <v-checkbox-btn
        v-for="one in wood.free"
        :key="one.id"
        :model-value="wood.document.out_of?.includes(one.id)"
        :data-out="one.name"
        @update:model-value="pickStock(one.id)"
      >
        <template #label>
          <span
            >{{ one.name }} <span class="quiet">{{ one.text }}</span></span
          >
        </template>
      </v-checkbox-btn>
    </details>
    <div class="fields">
      <TypedField
        v-for="name in FIGURES"
        :key="name"
        :label="label(name)"
        :text="wood.chosen[name]?.text ?? ''"
        :fault="fault(name)"
        :stamp="() => wood"
        :data-wood-field="name"
        @commit="choose({ [name]: $event })"
      />
    </div>
    <div class="fields">
      <BareNumber
        v-for="name in AIRS"
        :key="name"
        v-bind="numberOf('WoodChoice', name, 'WoodChoice')"
        :value="wood.document[name] ?? start(name)"
        :data-air-field="name"
        @commit="choose({ [name]: $event ?? start(name) })"
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
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.choices {
  border: 0;
  padding: 0;
  margin: 0.5rem 0 0;
  min-width: 0;
}
legend {
  font-weight: 650;
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
</style>
