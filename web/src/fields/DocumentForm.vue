<script setup lang="ts">
import { computed } from 'vue'

import { valueAt } from '../paths'
import Choice from './Choice.vue'
import DocumentField from './DocumentField.vue'
import { useHost } from './host'
import { published } from './published'
import type { Row } from './rows'

/** Several fields of a document (the open piece, or what the page provides), named by a table. */
const props = withDefaults(
  defineProps<{
    /** What stands before every path, such as "supports.0". */
    base?: string
    /** The fields, in order: by their places, as the core calls them (with all words of a choice in sight),
     * or as they are called here alone. */
    rows: (Row | string | { words: string })[]
    /** How many stand beside each other; 3 by default. */
    across?: number
  }>(),
  { base: '', across: 3 },
)
const host = useHost()
const list = computed(() =>
  props.rows.map((given) => {
    const row = typeof given === 'string' ? told(given) : 'label' in given ? given : words(given)
    const path = props.base ? `${props.base}.${row.at}` : row.at
    const long = Math.max(0, ...(row.items ?? []).map((item) => item.title.length))
    const said = row.kind === 'text' && props.across > 3
    const broad = said || (props.across > 1 && (row.label.length > 13 || long > 8))
    const value = valueAt(host.document(), path)
    return { ...row, path, value, wrong: host.fault(path)?.said ?? '', class: { broad } }
  }),
)
const told = (at: string): Row => published(host.document(), props.base, at, host.root)
/** A choice whose words are all seen at once. */
const words = ({ words: at }: { words: string }): Row => ({ ...told(at), kind: 'words' })
const chosen = (row: Row, title: string): unknown =>
  row.items?.find((item) => String(item.value) === title)?.value

/** A count is sent as a number where it is one; anything else as typed, for the answer to refuse. */
function count(path: string, typed: string): void {
  host.set(path, /^\d+$/.test(typed.trim()) ? Number(typed) : typed)
}
/** The keys go back to the bench: the next letter is none of the field's. */
const leave = (event: KeyboardEvent): void => (event.target as HTMLElement).blur()
</script>

<template>
  <div class="form" :style="{ '--across': across }">
    <template v-for="row in list" :key="row.path">
      <DocumentField v-if="!row.kind" :class="row.class" :label="row.label" :path="row.path" />
      <Choice
        v-else-if="row.kind === 'words'"
        :label="row.label"
        :items="(row.items ?? []).map((item) => ({ value: String(item.value), title: item.title }))"
        :value="String(row.value)"
        @choose="host.set(row.path, chosen(row, $event))"
      />
      <v-select
        v-else-if="row.kind === 'choice'"
        :label="row.label"
        :class="row.class"
        :items="row.items"
        :model-value="row.value"
        :error-messages="row.wrong"
        :data-field="row.path"
        @update:model-value="host.set(row.path, $event)"
      />
      <v-text-field
        v-else-if="row.kind === 'count'"
        :label="row.label"
        inputmode="numeric"
        :model-value="row.value"
        :error-messages="row.wrong"
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
        :error-messages="row.wrong"
        :class="row.class"
        :data-field="row.path"
        @keydown.enter="leave"
        @keydown.esc="leave"
        @change="host.set(row.path, ($event.target as HTMLInputElement).value)"
      />
      <v-checkbox
        v-else
        :label="row.label"
        :model-value="!!row.value"
        :error-messages="row.wrong"
        :data-field="row.path"
        @update:model-value="host.set(row.path, $event)"
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
