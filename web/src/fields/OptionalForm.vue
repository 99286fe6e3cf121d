<script setup lang="ts">
import PieceForm from './PieceForm.vue'
import type { Row } from './rows'

/** A part that a piece may have or not: a box to tick, and its fields where it is there. */
withDefaults(
  defineProps<{
    /** What is ticked. */
    label: string
    /** Whether it is there. */
    on: boolean
    /** What stands before every path. */
    base: string
    /** Its fields, in order. */
    rows: (Row | string)[]
    /** How many stand beside each other. */
    across?: number
  }>(),
  { across: 3 },
)
defineEmits<{ /** It is wanted, or not any more. */ want: [on: boolean] }>()
</script>

<template>
  <div>
    <label class="flag">
      <input
        type="checkbox"
        :checked="on"
        @change="$emit('want', ($event.target as HTMLInputElement).checked)"
      />
      {{ label }}
    </label>
    <PieceForm v-if="on" :base="base" :rows="rows" :across="across" />
  </div>
</template>

<style scoped>
.flag {
  display: inline-block;
  margin-bottom: 0.35rem;
  white-space: nowrap;
  font-size: 0.92rem;
}
</style>
