<script setup lang="ts">
import terms from '../../docs/glossary/terms.json'
import Sheet from './Sheet.vue'

/** The words for what the hands do, with a drawing each: the same as in the docs. */
const open = defineModel<boolean>({ required: true })
const drawings = import.meta.glob<string>('../../docs/glossary/*.svg', {
  query: '?raw',
  import: 'default',
  eager: true,
})
const drawn = (key: string): string => drawings[`../../docs/glossary/${key}.svg`] ?? ''
</script>

<template>
  <Sheet v-model="open" wide="56rem">
    <h2>Words</h2>
    <dl>
      <div v-for="{ key, term, text } in terms" :key="key" :data-term="key">
        <!-- eslint-disable-next-line vue/no-v-html -- drawings that ship with the program -->
        <span class="drawn" aria-hidden="true" v-html="drawn(key)" />
        <dt>{{ term }}</dt>
        <dd>{{ text }}</dd>
      </div>
    </dl>
    <v-btn @click="open = false">Back to work</v-btn>
  </Sheet>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 25rem), 1fr));
  gap: 0.9rem 1.6rem;
  max-height: 68vh;
  overflow-y: auto;
}
dl div {
  display: grid;
  grid-template-columns: 110px 1fr;
  gap: 0 0.9rem;
  align-content: start;
}
.drawn {
  grid-row: 1 / 3;
}
dt {
  font-weight: 650;
}
</style>
