<script setup lang="ts">
import DocumentForm from './DocumentForm.vue'
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
    <v-checkbox-btn
      inline
      :label="label"
      :model-value="on"
      @update:model-value="$emit('want', $event)"
    />
    <DocumentForm v-if="on" :base="base" :rows="rows" :across="across" />
  </div>
</template>
