<script setup lang="ts">
import { ref, watch } from 'vue'

import { api, ask } from '../api/client'
import type { TimeOut } from '../api/types'
import { tried } from './asked'
import { mostOf } from '../fields/published'

/** When the maker works, a line a day; days off. */
const props = defineProps<{
  /** The hours as they are. */
  hours: TimeOut['hours']
  /** Whether they are the maker's own. */
  own: boolean
}>()
const emit = defineEmits<{ /** They were kept. */ kept: [] }>()
const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const lines = ref<string[]>([])
const off = ref<string[]>([])
/** What the workshop had when it was last heard: what was typed since is the maker's. */
let heard: { lines: string[]; off: string[] } = { lines: [], off: [] }
/** Folded away from the start where the hours are the maker's own; never under the maker's hands. */
const unfolded = !props.own
const said = ref('')

watch(
  () => props.hours,
  (given) => {
    const told = [...given.lines]
    lines.value = told.map((line, k) => {
      const mine = lines.value[k]
      return mine === undefined || mine === heard.lines[k] ? line : mine
    })
    if (String(off.value) === String(heard.off)) off.value = [...(given.off ?? [])]
    heard = { lines: told, off: [...(given.off ?? [])] }
  },
  { immediate: true },
)

async function keep(): Promise<void> {
  const sent = { lines: [...lines.value], off: [...off.value] }
  const keepThem = () => ask(api.PUT('/api/time/hours', { body: sent }))
  if (!(await tried(said, keepThem))) return
  heard = sent
  said.value = 'Kept.'
  emit('kept')
}
const fresh = ref('')
function add(): void {
  if (fresh.value && !off.value.includes(fresh.value))
    off.value = [...off.value, fresh.value].sort()
  fresh.value = ''
}
</script>

<template>
  <details class="hours" :open="unfolded">
    <summary>When you work{{ own ? '' : ' (a usual week is taken until you say)' }}</summary>
    <label v-for="(day, k) in DAYS" :key="day" class="line">
      {{ day }}
      <input v-model="lines[k]" :maxlength="mostOf('HoursIn', 'lines', 'Sent')" :data-hours="k" />
    </label>
    <div class="line">
      <label for="day-off">a day off</label>
      <span>
        <input id="day-off" v-model="fresh" type="date" data-off />
        <button class="plain word" type="button" @click="add">add it</button>
      </span>
    </div>
    <p v-if="off.length">
      off:
      <button
        v-for="day in off"
        :key="day"
        class="plain word"
        type="button"
        :aria-label="`${day} is no day off after all`"
        @click="off = off.filter((one) => one !== day)"
      >
        {{ day }}
      </button>
    </p>
    <p v-if="said" role="status" data-hours-said>{{ said }}</p>
    <v-btn size="small" data-hours-keep @click="keep">Keep these hours</v-btn>
  </details>
</template>

<style scoped>
.hours {
  display: grid;
  gap: 0.3rem;
  padding-top: 0.6rem;
}
summary {
  font-weight: 650;
  cursor: pointer;
}
.line {
  display: grid;
  grid-template-columns: 7rem 1fr;
  gap: 0.6rem;
  padding: 2px 0;
  max-width: 26rem;
}
input {
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 3px 6px;
  color-scheme: light dark;
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.9rem;
}
</style>
