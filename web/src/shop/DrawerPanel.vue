<script setup lang="ts">
import { computed } from 'vue'

import type { Fault, Shop } from '../api/types'
import TypedField from '../fields/TypedField.vue'
import { useShop } from './store'

/** One drawer of small things: bits, or spacers; each line a thing, its fields in a row. */
const props = defineProps<{
  /** Which list of the shop. */
  list: 'bits' | 'mouth_bits' | 'spacers'
  /** Heading. */
  title: string
  /** What an empty drawer means. */
  empty: string
  /** Fields of a line: name, label, whether it is a count (a plain number) or a name. */
  fields: { name: string; label: string; as: 'length' | 'count' | 'text' }[]
  /** What a new line begins with, besides its first field. */
  fresh: Record<string, unknown>
  /** Faults by path. */
  faults: Record<string, Fault>
}>()
const emit = defineEmits<{
  /** A value at a path of the shop. */ set: [path: string, value: unknown]
}>()
const store = useShop()
const lines = computed(() => ((store.shop as Shop)[props.list] ?? []) as Record<string, unknown>[])
const first = computed(() => props.fields[0])
const columns = computed(
  () => props.fields.map((f) => (f.as === 'text' ? '2.4fr' : '1fr')).join(' ') + ' auto',
)

function text(at: number, name: string, as: string): string {
  if (as === 'length') return store.chosen[`${props.list}.${at}.${name}`]?.text ?? ''
  const got = lines.value[at]?.[name]
  return typeof got === 'string' || typeof got === 'number' ? String(got) : ''
}
function commit(at: number, name: string, as: string, value: string): void {
  const plain = as === 'count' && /^\s*\d+\s*$/.test(value) ? Number(value) : value
  emit('set', `${props.list}.${at}.${name}`, plain)
}
function add(value: string): void {
  if (!value.trim() || !first.value) return
  emit('set', props.list, [...lines.value, { ...props.fresh, [first.value.name]: value }])
}
function drop(at: number): void {
  emit(
    'set',
    props.list,
    lines.value.filter((_, k) => k !== at),
  )
}
/** A fault of the list itself, or of the line that could not be added. */
const listFault = computed(() => props.faults[props.list])
</script>

<template>
  <section class="drawer" :aria-label="title" :data-drawer="list">
    <h2>{{ title }}</h2>
    <p v-if="!lines.length" class="quiet">{{ empty }}</p>
    <ul>
      <li v-for="(_, at) in lines" :key="at" :style="{ gridTemplateColumns: columns }">
        <TypedField
          v-for="field in fields"
          :key="field.name"
          :stamp="() => store.chosen"
          :label="field.label"
          :text="text(at, field.name, field.as)"
          :fault="faults[`${list}.${at}.${field.name}`]"
          :data-field="`${list}.${at}.${field.name}`"
          @commit="commit(at, field.name, field.as, $event)"
        />
        <button
          class="plain word"
          type="button"
          :aria-label="`Remove line ${at + 1} of ${title}`"
          @click="drop(at)"
        >
          remove
        </button>
      </li>
    </ul>
    <div v-if="first" class="new">
      <TypedField
        :stamp="() => lines"
        :label="`Another: ${first.label.toLowerCase()}`"
        text=""
        :fault="listFault"
        :data-field="`${list}.new`"
        @commit="add"
      />
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1.05rem;
}
ul {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 34rem), 1fr));
  gap: 0.4rem 2rem;
  padding: 0.4rem 0;
}
@media (max-width: 600px) {
  li {
    grid-template-columns: 1fr 1fr !important;
  }
  /* The name of what it is takes a line of its own. */
  li > :first-child:has(+ * + * + *) {
    grid-column: 1 / -1;
  }
}
li {
  display: grid;
  gap: 0.6rem;
  align-items: center;
}
.new {
  max-width: 350px;
}
</style>
