<script setup lang="ts">
import LogList from './LogList.vue'

/** What happened in the whole shop. */
</script>

<template>
  <main class="page">
    <h1>Log</h1>
    <LogList />
  </main>
</template>

<style scoped>
.page {
  padding: 0.8rem 1.25rem 2rem;
  max-width: 1100px;
}
h1 {
  font-size: 1.4rem;
}
</style>
