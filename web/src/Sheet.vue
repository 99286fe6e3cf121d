<script setup lang="ts">
/** A sheet laid over the bench: what asks for the maker's whole attention, and goes away again. */
const open = defineModel<boolean>({ required: true })
withDefaults(
  defineProps<{
    /** Widest it becomes, any CSS length; 30rem by default. */
    wide?: string
  }>(),
  { wide: '30rem' },
)
</script>

<template>
  <v-dialog v-model="open" :max-width="wide" scrollable>
    <div class="sheet"><slot /></div>
  </v-dialog>
</template>

<style scoped>
.sheet {
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 1.25rem;
  display: grid;
  gap: 0.8rem;
  overflow-y: auto;
}
</style>
