<script setup lang="ts">
import { computed } from 'vue'

import { close, runs } from './fractions'

/** A figure with its fractions set as fractions. */
const props = defineProps<{ /** Text such as '16 1/2"'. */ text: string }>()
const parts = computed(() => runs(close(props.text)))
</script>

<template>
  <span class="figures" :aria-label="text" role="text"
    ><template v-for="(part, index) in parts" :key="index"
      ><span v-if="part.over" class="fraction"
        ><sup>{{ part.over[0] }}</sup
        >⁄<sub>{{ part.over[1] }}</sub></span
      ><template v-else>{{ part.plain }}</template></template
    ></span
  >
</template>

<style scoped>
.fraction {
  margin-left: 0.12em;
}
sup,
sub {
  font-size: 0.68em;
  line-height: 0;
}
sup {
  vertical-align: 0.42em;
}
sub {
  vertical-align: -0.08em;
}
</style>
