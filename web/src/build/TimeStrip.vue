<script setup lang="ts">
import { computed } from 'vue'

import type { TimeOut } from '../api/types'

/** The pieces over the days, drawn: work in ink, rests as a thin dashed line, a flag where one is promised. */
const props = defineProps<{ /** The schedule. */ time: TimeOut }>()
const DAY = 86_400_000
const ROW = 26
const LEFT = 150
const WIDE = 1240
const start = computed(() => {
  const at = new Date(props.time.now)
  at.setHours(0, 0, 0, 0)
  return at.getTime()
})
const many = computed(() => {
  const last = Math.max(
    ...props.time.slots.map((slot) => new Date(slot.ends).getTime()),
    start.value + DAY,
  )
  return Math.min(60, Math.max(5, Math.ceil((last - start.value) / DAY)))
})
const x = (iso: string): number =>
  LEFT + ((new Date(iso).getTime() - start.value) / DAY / many.value) * (WIDE - LEFT)
const rows = computed(() =>
  props.time.pieces.map((piece, k) => ({
    piece,
    y: 26 + k * ROW,
    slots: props.time.slots.filter((slot) => slot.job === piece.id),
  })),
)
const days = computed(() =>
  Array.from({ length: many.value }, (_, k) => {
    const at = new Date(start.value)
    at.setDate(at.getDate() + k)
    return { x: x(at.toISOString()), at, rest: at.getDay() === 0 || at.getDay() === 6 }
  }),
)
const each = computed(() => (many.value > 24 ? 7 : many.value > 12 ? 2 : 1))
const high = computed(() => 30 + rows.value.length * ROW)
const flag = (day: string): number => {
  const at = new Date(`${day}T00:00:00`)
  at.setDate(at.getDate() + 1)
  return x(at.toISOString())
}
</script>

<template>
  <div class="over" tabindex="0" role="group" aria-label="The pieces over the days">
    <svg
      :viewBox="`0 0 ${WIDE} ${high}`"
      class="strip"
      role="img"
      aria-label="The pieces over the days"
      data-strip
    >
      <template v-for="(day, k) in days" :key="day.x">
        <line :x1="day.x" :x2="day.x" y1="16" :y2="high" class="day" />
        <text v-if="k % each === 0" :x="day.x + 3" y="12">
          {{ day.at.toLocaleDateString([], { weekday: 'short', day: 'numeric' }) }}
        </text>
      </template>
      <g v-for="row in rows" :key="row.piece.id">
        <text x="0" :y="row.y + 14" class="name">{{ row.piece.name.slice(0, 20) }}</text>
        <template v-for="slot in row.slots" :key="slot.begins">
          <line
            v-if="slot.rests_until"
            :x1="x(slot.ends)"
            :x2="x(slot.rests_until)"
            :y1="row.y + 9"
            :y2="row.y + 9"
            class="rest"
          />
          <rect
            :x="x(slot.begins)"
            :y="row.y"
            :width="Math.max(1.2, x(slot.ends) - x(slot.begins))"
            height="18"
            class="work"
          />
        </template>
        <path
          v-if="row.piece.promised"
          :d="`M${flag(row.piece.promised)} ${row.y - 2} v22 M${flag(row.piece.promised)} ${row.y - 2} h-9 l3 4 l-3 4 h9`"
          class="flag"
          :class="{ late: row.piece.late_h > 0 }"
        />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.over {
  overflow-x: auto;
}
.strip {
  width: 100%;
  min-width: 760px;
  max-height: 300px;
  border-bottom: 1.5px solid var(--ink);
}
text {
  font-size: 11px;
  fill: var(--ink);
}
.name {
  font-size: 13px;
  font-weight: 600;
}
.day {
  stroke: var(--line);
}
.work {
  fill: var(--ink);
}
.rest {
  stroke: var(--measured);
  stroke-width: 2;
  stroke-dasharray: 4 3;
}
.flag {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.flag.late {
  stroke: var(--cut);
}
</style>
