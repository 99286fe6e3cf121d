<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { api, ask, Refused } from '../api/client'
import type { Fault, ReadyShop, Shop, Tool } from '../api/types'
import Choice from '../fields/Choice.vue'
import { labelOf, published, wordsOf } from '../fields/published'
import TypedField from '../fields/TypedField.vue'
import { valueAt, withValue, without } from '../paths'
import DrawerPanel from './DrawerPanel.vue'
import ShopFile from './ShopFile.vue'
import { useShop } from './store'
import { useGone } from './undo'

/** The tools of the shop, how their scales read and how far they reach; units and rounding. */
const store = useShop()
const faults = ref<Record<string, Fault>>({})
const away = ref(false)
const shop = computed(() => store.shop as Shop)

async function set(path: string, value: unknown): Promise<void> {
  try {
    await store.change((now) => withValue(now, path, value))
    faults.value = without(faults.value, path)
    away.value = false
  } catch (error) {
    if (error instanceof Refused) {
      const found = error.problem.faults?.[0]
      if (found) faults.value = { ...faults.value, [path]: found }
    } else away.value = true
  }
}
const text = (path: string): string => store.chosen[path]?.text ?? ''

const tools = computed(() => shop.value.tools ?? [])
const SCALES = ['scale', 'tilt'] as const
const SQUARE = wordsOf('Scale', 'at_square', 'Shop')
const COUNTS = wordsOf('Scale', 'counts', 'Shop')
const SPACERS = wordsOf('Ramp', 'spacer', 'Shop')
const ROUNDING = wordsOf('Rounding', 'fraction', 'Shop')
const STEPS = wordsOf('Rounding', 'step_mm', 'Shop')
const drawer = (model: string, fields: Record<string, 'length' | 'count' | 'text'>) =>
  Object.entries(fields).map(([name, as]) => ({ name, as, label: labelOf(model, name, 'Shop') }))
const BITS = drawer('OwnedBit', { diameter: 'length', centre_spur: 'length', rim_spurs: 'length' })
const MOUTH_BITS = drawer('MouthBit', { radius: 'length' })
const SPACER_FIELDS = drawer('Spacer', { name: 'text', thick: 'length', count: 'count' })
const INSTRUMENTS = wordsOf('Shop', 'instruments', 'Shop')
const SYSTEMS = wordsOf('Rounding', 'system', 'Shop')
/** What each kind of tool is, said beside its name. */
const ABOUT = Object.fromEntries(
  wordsOf('Shop', 'tools', 'Shop').map(({ value, title }) => [value, title]),
)
/** Sizes a tool may have, in the order they stand. */
const SIZES = [
  'base',
  'height',
  'length',
  'cutter',
  'bore',
  'takes',
  'front',
  'behind',
  'reach',
  'widest',
  'tallest',
  'kerf',
]
/** What a field of a tool is called. */
const called = (at: string): string => published(shop.value, '', at, 'Shop').label
/** Every tool there is, as it comes: the ready-made sets hold one of each. */
const ready = ref<ReadyShop[]>([])
const gone = useGone()
onMounted(async () => {
  try {
    ready.value = await ask(api.GET('/api/shop/ready'))
  } catch {
    away.value = true
  }
})
function swap(one: ReadyShop): void {
  gone.remember({ says: `the tools before ${one.title}`, at: -1, tools: tools.value })
  void set('tools', one.tools)
}
const putBack = (): Promise<void> => set('tools', gone.putBack(tools.value))
const known = computed(() => {
  const found = new Map<string, Tool>()
  for (const set of ready.value)
    for (const tool of set.tools) if (!found.has(tool.kind ?? '')) found.set(tool.kind ?? '', tool)
  return [...found.values()]
})
const add = (tool: Tool): Promise<void> => set('tools', [...tools.value, tool])
function drop(at: number): void {
  const tool = tools.value[at]
  if (!tool) return
  gone.remember({ says: tool.name, at, tools: [tool] })
  const left = tools.value.filter((one) => one !== tool)
  void set('tools', left)
}
const has = (tool: Tool, name: string): boolean => name in tool
</script>

<template>
  <main class="shop">
    <h1>The shop</h1>
    <p v-if="away" role="alert">The workshop does not answer: press Enter in the field again.</p>
    <section class="units" aria-label="Units">
      <Choice
        label="Figures in"
        :items="SYSTEMS"
        :value="store.system"
        @choose="set('rounding.system', $event)"
      />
      <Choice
        label="Inches to the nearest"
        :items="ROUNDING"
        :value="String(shop.rounding?.fraction)"
        @choose="set('rounding.fraction', Number($event))"
      />
      <Choice
        label="Millimetres to the nearest"
        :items="STEPS"
        :value="String(shop.rounding?.step_mm)"
        @choose="set('rounding.step_mm', Number($event))"
      />
      <TypedField
        :stamp="() => store.chosen"
        label="Lead point"
        :text="text('bit.centre_spur')"
        :fault="faults['bit.centre_spur']"
        @commit="set('bit.centre_spur', $event)"
      />
      <TypedField
        :stamp="() => store.chosen"
        label="Rim spurs"
        :text="text('bit.rim_spurs')"
        :fault="faults['bit.rim_spurs']"
        @commit="set('bit.rim_spurs', $event)"
      />
      <Choice
        label="Instruments that send"
        :items="INSTRUMENTS"
        :value="shop.instruments ?? 'none'"
        @choose="set('instruments', $event)"
      />
    </section>
    <p v-if="gone.last.value" class="add" role="status">
      <span>Taken out: {{ gone.last.value.says }}.</span>
      <button class="plain word" type="button" data-back @click="putBack">put it back</button>
    </p>
    <ul class="tools">
      <li v-for="(tool, k) in tools" :key="k" :class="{ not: !tool.owned }" :data-tool="tool.kind">
        <div class="who">
          <v-checkbox-btn
            inline
            :model-value="tool.owned"
            :label="`${tool.name} in use`"
            @update:model-value="set(`tools.${k}.owned`, $event)"
          >
            <template #label>in use</template>
          </v-checkbox-btn>
          <button
            class="plain word"
            type="button"
            :aria-label="`Remove ${tool.name}`"
            @click="drop(k)"
          >
            remove
          </button>
        </div>
        <TypedField
          :stamp="() => store.chosen"
          :label="ABOUT[tool.kind ?? ''] ?? ''"
          :text="tool.name"
          :fault="faults[`tools.${k}.name`]"
          @commit="set(`tools.${k}.name`, $event)"
        />
        <div class="how">
          <template v-for="scale in SCALES" :key="scale">
            <template v-if="has(tool, scale)">
              <Choice
                :label="called(`tools.${k}.${scale}.at_square`)"
                :items="SQUARE"
                :value="store.chosen[`tools.${k}.${scale}.at_square`]?.value.toFixed(0) ?? '0'"
                @choose="set(`tools.${k}.${scale}.at_square`, Number($event))"
              />
              <Choice
                :label="called(`tools.${k}.${scale}.counts`)"
                :items="COUNTS"
                :value="String(valueAt(tool, `${scale}.counts`))"
                @choose="set(`tools.${k}.${scale}.counts`, $event)"
              />
              <TypedField
                :stamp="() => store.chosen"
                :label="called(`tools.${k}.${scale}.reach`)"
                :text="text(`tools.${k}.${scale}.reach`)"
                :fault="faults[`tools.${k}.${scale}.reach`]"
                :data-field="`tools.${k}.${scale}.reach`"
                @commit="set(`tools.${k}.${scale}.reach`, $event)"
              />
              <TypedField
                :stamp="() => store.chosen"
                :label="called(`tools.${k}.${scale}.step`)"
                :text="text(`tools.${k}.${scale}.step`)"
                :fault="faults[`tools.${k}.${scale}.step`]"
                @commit="set(`tools.${k}.${scale}.step`, $event)"
              />
            </template>
          </template>
          <v-select
            v-if="tool.kind === 'ramp'"
            :label="called(`tools.${k}.spacer`)"
            :items="SPACERS"
            :model-value="tool.spacer"
            @update:model-value="set(`tools.${k}.spacer`, $event)"
          />
          <template v-for="name in SIZES" :key="name">
            <TypedField
              v-if="has(tool, name)"
              :stamp="() => store.chosen"
              :label="called(`tools.${k}.${name}`)"
              :text="text(`tools.${k}.${name}`)"
              :fault="faults[`tools.${k}.${name}`]"
              :data-field="`tools.${k}.${name}`"
              @commit="set(`tools.${k}.${name}`, $event)"
            />
          </template>
        </div>
      </li>
    </ul>
    <DrawerPanel
      list="bits"
      title="Bits in the drawer"
      empty="None listed: whatever a hole wants is taken to be at hand. List them, and a hole without its bit is told."
      :fields="BITS"
      :fresh="{}"
      :faults="faults"
      @set="set"
    />
    <DrawerPanel
      list="mouth_bits"
      title="Cutters that round a hole's mouth"
      empty="None listed: a mouth that is eased for a leg's cove is rounded with a rasp."
      :fields="MOUTH_BITS"
      :fresh="{}"
      :faults="faults"
      @set="set"
    />
    <DrawerPanel
      list="spacers"
      title="Spacers to put under a foot"
      empty="None listed: shims are then given as a thickness only."
      :fields="SPACER_FIELDS"
      :fresh="{ thick: '1 mm' }"
      :faults="faults"
      @set="set"
    />
    <p class="add">
      <span>Another tool:</span>
      <button
        v-for="tool in known"
        :key="tool.kind"
        class="plain word"
        type="button"
        :data-add="tool.kind"
        @click="add(tool)"
      >
        {{ tool.name.toLowerCase() }}
      </button>
    </p>
    <p class="add">
      <span>Begin again from the tools of</span>
      <button
        v-for="one in ready"
        :key="one.name"
        class="plain word"
        type="button"
        :data-ready="one.name"
        @click="swap(one)"
      >
        {{ one.title }}
      </button>
    </p>
    <ShopFile />
  </main>
</template>

<style scoped>
.shop {
  padding: 0.9rem 1.25rem 3rem;
  display: grid;
  gap: 0.9rem;
  max-width: 1280px;
}
h1 {
  font-size: 1.4rem;
}
.units {
  display: grid;
  grid-template-columns: auto auto auto 1fr 1fr;
  gap: 1.6rem;
  align-items: center;
}
.tools {
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 140px 300px 1fr;
  gap: 1.2rem;
  border-top: 1px solid var(--line);
  padding: 0.45rem 0;
  align-items: start;
}
.how {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12.5rem, 1fr));
  gap: 0.8rem;
  align-items: start;
}
.who {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  font-size: 0.87rem;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
}
@media (max-width: 900px) {
  li,
  .units {
    grid-template-columns: 1fr;
  }
}
</style>
