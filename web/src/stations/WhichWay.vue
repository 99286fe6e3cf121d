<script setup lang="ts">
/** How the work lies, a sentence or two; of many parts each on a line of its own, to be found again. */
defineProps<{
  /** The sentences, in their order. */
  lines: readonly string[]
}>()
const MOST = 2
</script>

<template>
  <p>
    <template v-if="lines.length > MOST">
      <span v-for="(line, k) in lines" :key="k">{{ line + ' ' }}</span>
    </template>
    <template v-else>{{ lines.join(' ') }}</template>
  </p>
</template>

<style scoped>
span {
  display: block;
  padding-left: 1.2em;
  text-indent: -1.2em;
}
</style>
