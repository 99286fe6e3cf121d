<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { api, ask, Refused } from '../api/client'
import type { EveryTool, ReadyShop, Shop, Tool } from '../api/types'
import Drawing from '../drawing/Drawing.vue'
import Choice from '../fields/Choice.vue'
import Sheet from '../Sheet.vue'
import { useShop } from './store'
import { wordsOf } from '../fields/published'

/** Asked once: the units of whoever is here, and the tools of a shop nobody has described yet. */
const store = useShop()
const open = ref(true)
const system = ref<'inch' | 'metric'>(store.system)
const every = ref<EveryTool | null>(null)
const sets = ref<ReadyShop[]>([])
const ticked = ref<string[]>([])
const wrong = ref('')
const withTools = computed(() => store.unasked.includes('tools'))
const SYSTEMS = wordsOf('Rounding', 'system', 'Shop')

onMounted(async () => {
  if (!withTools.value) return
  try {
    const tools = (await ask(api.GET('/api/shop/tools'))) as EveryTool
    ticked.value = (store.shop?.tools ?? []).filter((one) => one.owned).map((one) => one.kind ?? '')
    sets.value = await ask(api.GET('/api/shop/ready'))
    every.value = tools
  } catch {
    wrong.value = 'The tools could not be fetched: the shop asks for them at any time.'
  }
})

const take = (one: ReadyShop): void => {
  ticked.value = one.tools.map((tool) => tool.kind ?? '')
}

async function keep(): Promise<void> {
  try {
    await store.change((now: Shop) => {
      const rounding = { ...now.rounding, system: system.value }
      if (!every.value) return { ...now, rounding }
      const owned = (tool: Tool): boolean => ticked.value.includes(tool.kind ?? '')
      // Those that are there keep their order: cards come in it.
      const mine = (now.tools ?? []).map((tool) => ({ ...tool, owned: owned(tool) }))
      const kinds = mine.map((tool) => tool.kind)
      const more = every.value.tools.filter((tool) => owned(tool) && !kinds.includes(tool.kind))
      return { ...now, rounding, tools: [...mine, ...more] }
    })
    open.value = false
  } catch (error) {
    wrong.value =
      error instanceof Refused
        ? (error.problem.faults?.[0]?.said ?? error.problem.detail)
        : 'The workshop does not answer. Try again.'
  }
}
</script>

<template>
  <Sheet v-model="open" :wide="withTools ? '60rem' : '30rem'" persistent>
    <h2>Before the first piece</h2>
    <Choice
      label="Figures in"
      :items="SYSTEMS"
      :value="system"
      @choose="system = $event as 'inch' | 'metric'"
    />
    <template v-if="every">
      <p>
        Tick what you have: the settings are for these tools. All of it can be changed in the shop.
      </p>
      <p class="sets">
        <span>As on</span>
        <button
          v-for="one in sets"
          :key="one.name"
          class="plain word"
          type="button"
          :data-set="one.name"
          @click="take(one)"
        >
          {{ one.title }}
        </button>
        <button class="plain word" type="button" @click="ticked = []">none of them</button>
      </p>
      <ul>
        <li v-for="tool in every.tools" :key="tool.kind">
          <label :class="{ on: ticked.includes(tool.kind ?? '') }">
            <span class="drawn">
              <Drawing
                v-if="every.pictures[tool.kind ?? '']"
                :view="every.pictures[tool.kind ?? '']!"
                :letter="0"
              />
            </span>
            <span class="tool">
              <v-checkbox-btn v-model="ticked" inline :value="tool.kind" :data-tick="tool.kind" />
              {{ tool.name }}
            </span>
          </label>
        </li>
      </ul>
    </template>
    <p v-if="wrong" role="alert">{{ wrong }}</p>
    <v-btn color="primary" variant="flat" data-first @click="keep">To work</v-btn>
  </Sheet>
</template>

<style scoped>
.sets {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.1rem;
}
ul {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 0.6rem;
  max-height: 52vh;
  overflow-y: auto;
}
label {
  display: grid;
  gap: 0.2rem;
  border: 1.5px solid var(--line);
  padding: 0.35rem;
  cursor: pointer;
  height: 100%;
}
label.on {
  border-color: var(--measured);
}
.drawn {
  height: 84px;
}
.tool {
  display: flex;
  align-items: center;
}
</style>
