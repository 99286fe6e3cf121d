<script setup lang="ts">
import { computed } from 'vue'

import { usePiece } from '../piece/store'
import { valueAt } from '../paths'
import PieceField from './PieceField.vue'
import type { Row } from './rows'

/** Several fields of the open piece, named by a table. */
const props = withDefaults(
  defineProps<{
    /** What stands before every path, such as "supports.0". */
    base?: string
    /** The fields, in order. */
    rows: Row[]
    /** How many stand beside each other; 3 by default. */
    across?: number
  }>(),
  { base: '', across: 3 },
)
const store = usePiece()
const list = computed(() =>
  props.rows.map((row) => {
    const path = props.base ? `${props.base}.${row.at}` : row.at
    return { ...row, path, value: valueAt(store.piece, path), fault: store.faults[path] }
  }),
)

/** A count is sent as a number where it is one; anything else as typed, for the answer to refuse. */
function count(path: string, typed: string): void {
  store.set(path, /^\d+$/.test(typed.trim()) ? Number(typed) : typed)
}
const wrong = (row: { fault: { said: string } | undefined }): string => row.fault?.said ?? ''
</script>

<template>
  <div class="form" :style="{ gridTemplateColumns: `repeat(${across}, minmax(0, 1fr))` }">
    <template v-for="row in list" :key="row.path">
      <PieceField v-if="!row.kind" :label="row.label" :path="row.path" />
      <v-select
        v-else-if="row.kind === 'choice'"
        :label="row.label"
        :items="row.items"
        :model-value="row.value"
        :error-messages="wrong(row)"
        :data-field="row.path"
        @update:model-value="store.set(row.path, $event)"
      />
      <v-text-field
        v-else-if="row.kind === 'count'"
        :label="row.label"
        inputmode="numeric"
        :model-value="row.value"
        :error-messages="wrong(row)"
        :data-field="row.path"
        @change="count(row.path, ($event.target as HTMLInputElement).value)"
      />
      <v-text-field
        v-else-if="row.kind === 'text'"
        :label="row.label"
        :model-value="row.value"
        :error-messages="wrong(row)"
        :data-field="row.path"
        @change="store.set(row.path, ($event.target as HTMLInputElement).value)"
      />
      <label v-else class="flag">
        <input
          type="checkbox"
          :checked="!!row.value"
          :data-field="row.path"
          @change="store.set(row.path, ($event.target as HTMLInputElement).checked)"
        />
        {{ row.label }}
      </label>
    </template>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  gap: 0.5rem;
  align-items: start;
}
.flag {
  font-size: 0.92rem;
  padding: 0.35rem 0;
}
input[type='checkbox'] {
  accent-color: var(--measured);
  width: 18px;
  height: 18px;
  vertical-align: -3px;
}
.form :deep(input) {
  font-size: 0.95rem;
}
</style>
