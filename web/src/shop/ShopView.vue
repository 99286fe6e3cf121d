<script setup lang="ts">
import { computed, ref } from 'vue'

import { Refused } from '../api/client'
import type { Fault, Shop, Tool } from '../api/types'
import Choice from '../fields/Choice.vue'
import TypedField from '../fields/TypedField.vue'
import { withValue, without } from '../paths'
import { useShop } from './store'

/** The tools of the shop, how their scales read and how far they reach; units and rounding. */
const store = useShop()
const faults = ref<Record<string, Fault>>({})
const away = ref(false)
const shop = computed(() => store.shop as Shop)

async function set(path: string, value: unknown): Promise<void> {
  try {
    await store.change(withValue(shop.value, path, value))
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

const KINDS: [string, string, string][] = [
  ['bevel_gauge', 'Bevel gauge', 'gauge on the sightline'],
  ['tilting_table', 'Drill press, tilting table', 'drill press, table tilts'],
  ['ramp', 'Ramp', 'hinged ramp or sled'],
  ['guide_block', 'Guide block', 'block sawn to the angle'],
  ['angle_guide', 'Clamp-on drill guide', 'drill guide, tilting column'],
  ['digital_gauge', 'Digital gauge', 'gauge on the drill'],
  ['mitre_saw', 'Mitre saw', 'saw that swings'],
  ['handsaw', 'Handsaw and scribe', 'handsaw, scribing block'],
]
const about = (kind: string): string => KINDS.find(([k]) => k === kind)?.[2] ?? ''
const SQUARE = [
  { value: '0', title: '0' },
  { value: '90', title: '90' },
]
const COUNTS = [
  { value: 'up', title: 'up' },
  { value: 'down', title: 'down' },
]
const SPACERS = [
  { value: 'plumb_base', title: 'plumb, along base' },
  { value: 'plumb_ramp', title: 'plumb, along ramp' },
  { value: 'square_ramp', title: 'square to the ramp' },
  { value: 'bar', title: 'a round bar' },
]
const ROUNDING = [
  { value: '16', title: '1/16' },
  { value: '32', title: '1/32' },
  { value: '64', title: '1/64' },
]
const STEPS = [
  { value: '0.5', title: '0.5 mm' },
  { value: '0.1', title: '0.1 mm' },
]
const SYSTEMS = [
  { value: 'inch', title: 'inches' },
  { value: 'metric', title: 'millimetres' },
]
const tools = computed(() => shop.value.tools ?? [])
const add = (kind: string, name: string): Promise<void> =>
  set('tools', [...tools.value, { kind, name }])
const drop = (at: number): Promise<void> =>
  set(
    'tools',
    tools.value.filter((_, k) => k !== at),
  )
const scaled = (tool: Tool): boolean => 'scale' in tool && tool.scale !== undefined
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
        :stamp="store.chosen"
        label="Bit: lead point stands out"
        :text="text('bit.centre_spur')"
        :fault="faults['bit.centre_spur']"
        @commit="set('bit.centre_spur', $event)"
      />
      <TypedField
        :stamp="store.chosen"
        label="Bit: rim spurs stand out"
        :text="text('bit.rim_spurs')"
        :fault="faults['bit.rim_spurs']"
        @commit="set('bit.rim_spurs', $event)"
      />
    </section>
    <ul class="tools">
      <li v-for="(tool, k) in tools" :key="k" :class="{ not: !tool.owned }" :data-tool="tool.kind">
        <div class="who">
          <label>
            <input
              type="checkbox"
              :checked="tool.owned"
              :aria-label="`${tool.name} in use`"
              @change="set(`tools.${k}.owned`, ($event.target as HTMLInputElement).checked)"
            />
            in use
          </label>
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
          :stamp="store.chosen"
          :label="about(tool.kind ?? '')"
          :text="tool.name"
          :fault="faults[`tools.${k}.name`]"
          @commit="set(`tools.${k}.name`, $event)"
        />
        <div class="how">
          <template v-if="scaled(tool) && 'scale' in tool">
            <Choice
              label="Reads at square"
              :items="SQUARE"
              :value="String(tool.scale?.at_square)"
              @choose="set(`tools.${k}.scale.at_square`, Number($event))"
            />
            <Choice
              label="Counts"
              :items="COUNTS"
              :value="tool.scale?.counts ?? 'up'"
              @choose="set(`tools.${k}.scale.counts`, $event)"
            />
            <TypedField
              :stamp="store.chosen"
              label="Reaches"
              :text="text(`tools.${k}.scale.reach`)"
              :fault="faults[`tools.${k}.scale.reach`]"
              @commit="set(`tools.${k}.scale.reach`, $event)"
            />
            <TypedField
              :stamp="store.chosen"
              label="Smallest mark"
              :text="text(`tools.${k}.scale.step`)"
              :fault="faults[`tools.${k}.scale.step`]"
              @commit="set(`tools.${k}.scale.step`, $event)"
            />
          </template>
          <template v-if="tool.kind === 'ramp'">
            <TypedField
              :stamp="store.chosen"
              label="Hinge to spacer"
              :text="text(`tools.${k}.base`)"
              :fault="faults[`tools.${k}.base`]"
              @commit="set(`tools.${k}.base`, $event)"
            />
            <v-select
              label="Spacer stands"
              :items="SPACERS"
              :model-value="tool.spacer"
              @update:model-value="set(`tools.${k}.spacer`, $event)"
            />
          </template>
          <TypedField
            v-if="tool.kind === 'ramp' || tool.kind === 'guide_block'"
            :stamp="store.chosen"
            label="Good up to"
            :text="text(`tools.${k}.reach`)"
            :fault="faults[`tools.${k}.reach`]"
            @commit="set(`tools.${k}.reach`, $event)"
          />
          <TypedField
            v-if="tool.kind === 'guide_block'"
            :stamp="store.chosen"
            label="Height of the block"
            :text="text(`tools.${k}.height`)"
            :fault="faults[`tools.${k}.height`]"
            @commit="set(`tools.${k}.height`, $event)"
          />
          <TypedField
            v-if="tool.kind === 'mitre_saw'"
            :stamp="store.chosen"
            label="Blade leans to"
            :text="text(`tools.${k}.tilt.reach`)"
            :fault="faults[`tools.${k}.tilt.reach`]"
            @commit="set(`tools.${k}.tilt.reach`, $event)"
          />
        </div>
      </li>
    </ul>
    <p class="add">
      <span>Another tool:</span>
      <button
        v-for="[kind, name] in KINDS"
        :key="kind"
        class="plain word"
        type="button"
        @click="add(kind, name)"
      >
        {{ name.toLowerCase() }}
      </button>
    </p>
  </main>
</template>

<style scoped>
input[type='checkbox'] {
  accent-color: var(--measured);
  width: 18px;
  height: 18px;
  vertical-align: -3px;
}
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
  grid-template-columns: repeat(4, minmax(0, 1fr));
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
