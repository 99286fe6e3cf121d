<script setup lang="ts">
import { computed } from 'vue'

import type { Shop } from '../api/types'
import DocumentForm from '../fields/DocumentForm.vue'
import { useHost } from '../fields/host'
import { published } from '../fields/published'
import TypedField from '../fields/TypedField.vue'

/** One drawer of small things: bits, or spacers; each line a thing, its fields in a row. */
const props = defineProps<{
  /** Which list of the shop. */
  list: 'bits' | 'mouth_bits' | 'spacers'
  /** Heading. */
  title: string
  /** What an empty drawer means. */
  empty: string
  /** Fields of a line, the first of them what a new one is known by. */
  fields: string[]
  /** What a new line begins with, besides its first field. */
  fresh: Record<string, unknown>
}>()
const host = useHost()
const lines = computed(() => ((host.document() as Shop)[props.list] ?? []) as object[])
const first = computed(() => props.fields[0] ?? '')
const asks = computed(
  () => published(host.document(), `${props.list}.0`, first.value, host.root).label,
)

function add(value: string): void {
  if (!value.trim()) return
  host.set(props.list, [...lines.value, { ...props.fresh, [first.value]: value }])
}
function drop(at: number): void {
  host.set(
    props.list,
    lines.value.filter((_, k) => k !== at),
  )
}
/** A fault of the list itself, or of the line that could not be added. */
const listFault = computed(() => host.fault(props.list))
</script>

<template>
  <section class="drawer" :aria-label="title" :data-drawer="list">
    <h2>{{ title }}</h2>
    <p v-if="!lines.length" class="quiet">{{ empty }}</p>
    <ul>
      <li v-for="(_, at) in lines" :key="at">
        <DocumentForm
          :base="`${list}.${at}`"
          :rows="fields"
          :across="fields.includes('name') ? fields.length + 1 : fields.length"
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
    <div class="new">
      <TypedField
        :stamp="() => lines"
        :label="`Another: ${asks.toLowerCase()}`"
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
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.6rem;
  align-items: center;
}
.new {
  max-width: 350px;
}
</style>
