<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { api, ask } from '../api/client'
import type { ReadyShop, Shop, Tool } from '../api/types'
import Choice from '../fields/Choice.vue'
import DocumentField from '../fields/DocumentField.vue'
import DocumentForm from '../fields/DocumentForm.vue'
import { labelOf, wordsOf } from '../fields/published'
import TypedField from '../fields/TypedField.vue'
import DrawerPanel from './DrawerPanel.vue'
import { useShopHost } from './host'
import ShopFile from './ShopFile.vue'
import { useShop } from './store'
import { useGone } from './undo'

/** The tools of the shop, how their scales read and how far they reach; units and rounding. */
const store = useShop()
const { faults, away, set } = useShopHost()
const shop = computed(() => store.shop as Shop)

const tools = computed(() => shop.value.tools ?? [])
const SCALES = ['scale', 'tilt'] as const
const ROUNDING = wordsOf('Rounding', 'fraction', 'Shop')
const STEPS = wordsOf('Rounding', 'step_mm', 'Shop')
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
/** What is filled in of a tool: its scales, how a ramp's spacer stands, its sizes. */
const rowsOf = (tool: Tool): (string | { words: string })[] => [
  ...SCALES.filter((scale) => scale in tool).flatMap((scale) => [
    { words: `${scale}.at_square` },
    { words: `${scale}.counts` },
    `${scale}.reach`,
    `${scale}.step`,
  ]),
  ...(tool.kind === 'ramp' ? ['spacer'] : []),
  ...SIZES.filter((size) => size in tool),
]
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
</script>

<template>
  <main class="shop">
    <h1>The shop</h1>
    <p v-if="away" role="alert">The workshop does not answer: press Enter in the field again.</p>
    <section class="units" aria-label="Units">
      <Choice
        :label="labelOf('Rounding', 'system', 'Shop')"
        :items="SYSTEMS"
        :value="store.system"
        @choose="set('rounding.system', $event)"
      />
      <Choice
        :label="labelOf('Rounding', 'fraction', 'Shop')"
        :items="ROUNDING"
        :value="String(shop.rounding?.fraction)"
        @choose="set('rounding.fraction', Number($event))"
      />
      <Choice
        :label="labelOf('Rounding', 'step_mm', 'Shop')"
        :items="STEPS"
        :value="String(shop.rounding?.step_mm)"
        @choose="set('rounding.step_mm', Number($event))"
      />
      <DocumentField path="bit.centre_spur" />
      <DocumentField path="bit.rim_spurs" />
      <Choice
        :label="labelOf('Shop', 'instruments', 'Shop')"
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
        <DocumentForm class="how" :base="`tools.${k}`" :rows="rowsOf(tool)" />
      </li>
    </ul>
    <DrawerPanel
      list="bits"
      title="Bits in the drawer"
      empty="None listed: whatever a hole wants is taken to be at hand. List them, and a hole without its bit is told."
      :fields="['diameter', 'centre_spur', 'rim_spurs']"
      :fresh="{}"
    />
    <DrawerPanel
      list="mouth_bits"
      title="Cutters that round a hole's mouth"
      empty="None listed: a mouth that is eased for a leg's cove is rounded with a rasp."
      :fields="['radius']"
      :fresh="{}"
    />
    <DrawerPanel
      list="spacers"
      title="Spacers to put under a foot"
      empty="None listed: shims are then given as a thickness only."
      :fields="['name', 'thick', 'count']"
      :fresh="{ thick: '1 mm' }"
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
