<script setup lang="ts">
import { ref, watch } from 'vue'

import { api, ask } from '../api/client'
import type { TimeOut } from '../api/types'
import { tried } from './asked'

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

const clock = (hours: number): string => {
  const whole = Math.round(hours * 60)
  return `${Math.floor(whole / 60)}${whole % 60 ? `:${String(whole % 60).padStart(2, '0')}` : ''}`
}
watch(
  () => props.hours,
  (given) => {
    const told = DAYS.map((_, day) =>
      given.stretches
        .filter((one) => one.weekday === day)
        .map((one) => `${clock(one.begins_h)} to ${clock(one.ends_h)}`)
        .join(', '),
    )
    lines.value = told.map((line, k) => {
      const mine = lines.value[k]
      return mine === undefined || mine === heard.lines[k] ? line : mine
    })
    if (String(off.value) === String(heard.off)) off.value = [...(given.off ?? [])]
    heard = { lines: told, off: [...(given.off ?? [])] }
  },
  { immediate: true },
)

/** "8 to 12, 13:30-17" in hours; null where it cannot be read. */
function read(line: string): [number, number][] | null {
  const made: [number, number][] = []
  for (const part of line.split(/[,;]/)) {
    if (!part.trim()) continue
    const found = /^\s*(\d{1,2})(?:[:.](\d{2}))?\s*(?:to|-|–)\s*(\d{1,2})(?:[:.](\d{2}))?\s*$/.exec(
      part,
    )
    if (!found) return null
    const [, a, b, c, d] = found
    made.push([Number(a) + Number(b ?? 0) / 60, Number(c) + Number(d ?? 0) / 60])
  }
  return made
}

async function keep(): Promise<void> {
  const stretches: { weekday: number; begins_h: number; ends_h: number }[] = []
  for (const [day, line] of lines.value.entries()) {
    const got = read(line)
    if (!got) {
      said.value = `${DAYS[day]}: write it as 8 to 12, 13:30 to 17.`
      return
    }
    for (const [begins_h, ends_h] of got) stretches.push({ weekday: day, begins_h, ends_h })
  }
  const keepThem = () => ask(api.PUT('/api/time/hours', { body: { stretches, off: off.value } }))
  const sent = { lines: [...lines.value], off: [...off.value] }
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
      <input v-model="lines[k]" maxlength="80" :data-hours="k" />
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
