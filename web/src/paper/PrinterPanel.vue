<script setup lang="ts">
import { computed } from 'vue'

import Choice from '../fields/Choice.vue'
import DocumentField from '../fields/DocumentField.vue'
import { labelOf, wordsOf } from '../fields/published'
import { useShopHost } from '../shop/host'
import { useShop } from '../shop/store'

/** What is in the printer, and what it made of the check square: remembered for the shop. */
const store = useShop()
const { away, set } = useShopHost()
const PAPERS = wordsOf('Printed', 'paper', 'Shop')
const printer = computed(() => store.shop?.printer ?? { paper: 'a4', across: 100, up: 100 })
const true_ = computed(() => printer.value.across === 100 && printer.value.up === 100)
</script>

<template>
  <section aria-labelledby="printer" data-printer>
    <h2 id="printer">The printer</h2>
    <Choice
      :label="labelOf('Printed', 'paper', 'Shop')"
      :items="PAPERS"
      :value="printer.paper ?? 'a4'"
      @choose="set('printer.paper', $event)"
    />
    <p class="small">
      Print one sheet of patterns at 100 %, never fitted to the page. Measure its check square of
      100 mm and write what it came out as: what is printed after that is true.
    </p>
    <div class="fields">
      <DocumentField path="printer.across" />
      <DocumentField path="printer.up" />
    </div>
    <p class="small" role="status" data-printer-said>
      <template v-if="away">The workshop does not answer: not kept.</template>
      <template v-else-if="true_">As it is, nothing is made up for.</template>
      <template v-else
        >Made up for on every full-size sheet; printed anew, the square measures 100 mm.</template
      >
    </p>
  </section>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem 1.1rem;
  padding-top: 0.5rem;
}
</style>
