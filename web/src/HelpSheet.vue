<script setup lang="ts">
/** The sheet of single-letter shortcuts. */
const open = defineModel<boolean>({ required: true })

const keys = [
  ['u', 'inches or millimetres'],
  ['1 2 3', 'Stance, Boring, Legs of the open piece'],
  ['Ctrl Z', 'undo; with Shift, redo'],
  ['Enter', 'in a proof: keep the reading, go to the next'],
  ['arrows', 'nudge the handle that has the focus; with Shift, further'],
  ['q', 'Quick set'],
  ['r', 'the rack'],
  ['s', 'the shop'],
  ['t', 'next light: limewood, lampblack, full sun'],
  ['?', 'this sheet'],
]
</script>

<template>
  <v-dialog v-model="open" max-width="30rem">
    <div class="sheet">
      <h2>Keys</h2>
      <dl>
        <div v-for="[key, what] in keys" :key="key">
          <dt class="figures">{{ key }}</dt>
          <dd>{{ what }}</dd>
        </div>
      </dl>
      <h2>How figures may be typed</h2>
      <p class="figures">
        16 1/2 · 16-1/2" · 1' 4 1/2" · 16½ · 420 · 420 mm · 42cm · 0.5in · 11°30'
      </p>
      <v-btn @click="open = false">Back to work</v-btn>
    </div>
  </v-dialog>
</template>

<style scoped>
.sheet {
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 1.25rem;
  display: grid;
  gap: 0.8rem;
}
dl div {
  display: grid;
  grid-template-columns: 5rem 1fr;
  padding: 3px 0;
}
.figures {
  white-space: normal;
}
</style>
