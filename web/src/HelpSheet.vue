<script setup lang="ts">
import Sheet from './Sheet.vue'

/** The sheet of single-letter shortcuts. */
const open = defineModel<boolean>({ required: true })

const keys = [
  ['u', 'inches or millimetres'],
  ['1 to 6', 'the stations of the open piece'],
  ['Ctrl Z', 'undo; with Shift, or Ctrl Y, redo'],
  ['Enter', 'in a field: take it and leave; in a proof go on to the next'],
  ['Esc', 'in a field: leave it as it was'],
  ['arrows', 'in a row of words: look along it; space or Enter chooses'],
  ['arrows', 'nudge the handle that has the focus; with Shift, further'],
  ['f', 'the first field of the page'],
  ['g', 'the words, with a drawing each'],
  ['up, down', 'in a field: turn its value; with Shift, further; the wheel too'],
  ['q', 'Quick set'],
  ['r', 'the rack'],
  ['s', 'the shop'],
  ['w', 'the wood in the store'],
  ['t', 'next light: limewood, lampblack, full sun'],
  ['Page up, down', 'on a part laid on a slab: turn it'],
  ['Alt arrows', 'in the order of work: put a step earlier or later'],
  ['d, w, n, t', 'at the bench: done, went wrong, note, timer; left and right turn the steps'],
  ['?', 'this sheet'],
]
</script>

<template>
  <Sheet v-model="open">
    <h2>Keys</h2>
    <dl>
      <div v-for="[key, what] in keys" :key="what">
        <dt class="figures">{{ key }}</dt>
        <dd>{{ what }}</dd>
      </div>
    </dl>
    <h2>How figures may be typed</h2>
    <p class="figures">16 1/2 · 16-1/2" · 1' 4 1/2" · 16½ · 420 · 420 mm · 42cm · 0.5in · 11°30'</p>
    <v-btn @click="open = false">Back to work</v-btn>
  </Sheet>
</template>

<style scoped>
dl div {
  display: grid;
  grid-template-columns: 5rem 1fr;
  padding: 3px 0;
}
.figures {
  white-space: normal;
}
</style>
