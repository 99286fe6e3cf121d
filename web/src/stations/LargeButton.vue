<script setup lang="ts">
/** Makes a view the large one, or lets all stand alike again. */
const large = defineModel<string>({ required: true })
defineProps<{
  /** Name of the view. */
  name: string
  /** What it shows, in words. */
  title: string
}>()
</script>

<template>
  <button
    class="plain word"
    type="button"
    :aria-pressed="large === name"
    :aria-label="`${title}: ${large === name ? 'as large as the others' : 'make it large'}`"
    :data-large="name"
    @click="large = large === name ? '' : name"
  >
    {{ large === name ? 'smaller' : 'larger' }}
  </button>
</template>
