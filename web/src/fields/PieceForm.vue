<script setup lang="ts">
import { computed } from 'vue'

import { usePiece } from '../piece/store'
import { valueAt } from '../paths'
import PieceField from './PieceField.vue'
import { published } from './published'
import type { Row } from './rows'

/** Several fields of the open piece, named by a table. */
const props = withDefaults(
  defineProps<{
    /** What stands before every path, such as "supports.0". */
    base?: string
    /** The fields, in order: by their places, as the core calls them, or as they are called here alone. */
    rows: (Row | string)[]
    /** How many stand beside each other; 3 by default. */
    across?: number
  }>(),
  { base: '', across: 3 },
)
const store = usePiece()
const list = computed(() =>
  props.rows.map((given) => {
    const row = typeof given === 'string' ? published(store.piece, props.base, given) : given
    const path = props.base ? `${props.base}.${row.at}` : row.at
    const long = Math.max(0, ...(row.items ?? []).map((item) => item.title.length))
    const broad = props.across > 1 && (row.label.length > 13 || long > 8)
    const fault = store.faults[path]
    return { ...row, path, value: valueAt(store.piece, path), fault, class: { broad } }
  }),
)

/** A count is sent as a number where it is one; anything else as typed, for the answer to refuse. */
function count(path: string, typed: string): void {
  store.set(path, /^\d+$/.test(typed.trim()) ? Number(typed) : typed)
}
/** The keys go back to the bench: the next letter is none of the field's. */
const leave = (event: KeyboardEvent): void => (event.target as HTMLElement).blur()
const wrong = (row: { fault: { said: string } | undefined }): string => row.fault?.said ?? ''
</script>

<template>
  <div class="form" :style="{ '--across': across }">
    <template v-for="row in list" :key="row.path">
      <PieceField v-if="!row.kind" :class="row.class" :label="row.label" :path="row.path" />
      <v-select
        v-else-if="row.kind === 'choice'"
        :label="row.label"
        :class="row.class"
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
        :class="row.class"
        :data-field="row.path"
        @keydown.enter="leave"
        @keydown.esc="leave"
        @change="count(row.path, ($event.target as HTMLInputElement).value)"
      />
      <v-text-field
        v-else-if="row.kind === 'text'"
        :label="row.label"
        :model-value="row.value"
        :error-messages="wrong(row)"
        :class="row.class"
        :data-field="row.path"
        @keydown.enter="leave"
        @keydown.esc="leave"
        @change="store.set(row.path, ($event.target as HTMLInputElement).value)"
      />
      <v-checkbox
        v-else
        :label="row.label"
        :model-value="!!row.value"
        :error-messages="wrong(row)"
        :data-field="row.path"
        @update:model-value="store.set(row.path, $event)"
      />
    </template>
  </div>
</template>

<style scoped>
/* As many beside each other as are asked for, and fewer where they would be cut. */
.form {
  display: grid;
  gap: 0.5rem;
  grid-template-columns: repeat(
    auto-fill,
    minmax(
      max(var(--least, 7.4rem), calc((100% - (var(--across) - 1) * 0.5rem) / var(--across))),
      1fr
    )
  );
  align-items: start;
}
.broad {
  grid-column: span 2;
}
.form :deep(input) {
  font-size: 1rem;
}
</style>
