<script setup lang="ts">
/** The hatching of what is spoken for: once a page, for every drawing on it. */
</script>

<template>
  <svg width="0" height="0" class="defs" aria-hidden="true">
    <defs>
      <pattern
        id="taken"
        width="22"
        height="22"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(38)"
      >
        <rect width="22" height="22" class="ground" />
        <path d="M0 0V22" class="stroke" />
      </pattern>
    </defs>
  </svg>
</template>

<style scoped>
.defs {
  position: absolute;
}
.ground {
  fill: var(--leg);
}
.stroke {
  stroke: var(--ink);
  stroke-width: 4;
  stroke-opacity: 0.45;
}
</style>
