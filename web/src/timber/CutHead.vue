<script setup lang="ts">
import type { StockOut } from '../api/types'

/** The name of a piece of wood in a layout; once it is reserved it is said here that it was sawn. */
defineProps<{
  /** The piece of wood. */
  stock: StockOut
  /** Whether it is reserved as it is laid out. */
  reserved: boolean
  /** Whether it was sawn. */
  sawn: boolean
  /** Whether it is split rather than sawn; not by default. */
  split?: boolean
}>()
const emit = defineEmits<{
  /** It was sawn; `undo`: it was not, after all. */ sawn: [undo: boolean]
}>()
</script>

<template>
  <h2>
    {{ stock.item.name }}
    <span class="quiet small">{{ stock.text }}</span>
    <button
      v-if="reserved"
      class="plain word"
      type="button"
      :data-sawn="stock.item.name"
      @click="emit('sawn', sawn)"
    >
      {{
        split
          ? sawn
            ? 'not split after all'
            : 'split or sawn'
          : sawn
            ? 'not sawn after all'
            : 'sawn'
      }}
    </button>
  </h2>
</template>

<style scoped>
h2 {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
}
.small {
  font-size: 0.88rem;
  font-weight: 400;
}
</style>
