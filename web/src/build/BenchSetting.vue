<script setup lang="ts">
import { computed } from 'vue'

import type { SetUp } from '../api/types'
import FigureText from '../fields/FigureText.vue'

/** What to set, to be read from two metres. */
const props = defineProps<{ /** The card it is on. */ card: SetUp }>()
const dial = computed(() => props.card.dials[0])
const marked = computed(() => {
  const one = dial.value
  return one && one.mark.text !== one.reading.text ? one.mark.text : ''
})
</script>

<template>
  <div class="setting">
    <p class="what">{{ card.tool }}: {{ card.setting_name }}</p>
    <p class="figure" data-bench-setting>
      <FigureText v-if="card.setting" :text="card.setting.text" />
    </p>
    <p v-for="extra in card.dials.slice(1)" :key="extra.name" class="second">
      {{ extra.name }} <FigureText :text="extra.reading.text" />
    </p>
    <p v-if="marked" class="second">nearest mark <FigureText :text="marked" /></p>
    <p v-for="figure in card.jig" :key="figure.key" class="jig">
      {{ figure.label }} <FigureText :text="figure.quantity.text" />
    </p>
  </div>
</template>

<style scoped>
.what {
  font-size: 1.15rem;
}
.figure {
  font-size: 7rem;
  line-height: 1;
  font-weight: 750;
  letter-spacing: -0.02em;
  color: var(--cut);
}
.figure :deep(.figures) {
  font-family: var(--text);
}
.second {
  font-size: 1.6rem;
  font-weight: 650;
}
.jig {
  font-size: 1.15rem;
}
@media (max-width: 600px) {
  .figure {
    font-size: 4.6rem;
  }
}
</style>
