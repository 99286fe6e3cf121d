<script setup lang="ts">
import { computed, ref } from 'vue'

import { Refused } from '../api/client'
import type { Fault } from '../api/types'
import Choice from '../fields/Choice.vue'
import { wordsOf } from '../fields/published'
import TypedField from '../fields/TypedField.vue'
import { withValue, without } from '../paths'
import { useShop } from '../shop/store'

/** What is in the printer, and what it made of the check square: remembered for the shop. */
const store = useShop()
const faults = ref<Record<string, Fault>>({})
const away = ref(false)
const PAPERS = wordsOf('Printed', 'paper', 'Shop')
const printer = computed(() => store.shop?.printer ?? { paper: 'a4', across: 100, up: 100 })
const text = (path: string): string => store.chosen[path]?.text ?? ''
const true_ = computed(() => printer.value.across === 100 && printer.value.up === 100)

async function set(path: string, value: unknown): Promise<void> {
  try {
    await store.change((now) => withValue(now, path, value))
    faults.value = without(faults.value, path)
    away.value = false
  } catch (error) {
    if (!(error instanceof Refused)) away.value = true
    else if (error.problem.faults?.[0])
      faults.value = { ...faults.value, [path]: error.problem.faults[0] }
  }
}
</script>

<template>
  <section aria-labelledby="printer" data-printer>
    <h2 id="printer">The printer</h2>
    <Choice
      label="Paper"
      :items="PAPERS"
      :value="printer.paper ?? 'a4'"
      @choose="set('printer.paper', $event)"
    />
    <p class="small">
      Print one sheet of patterns at 100 %, never fitted to the page. Measure its check square of
      100 mm and write what it came out as: what is printed after that is true.
    </p>
    <div class="fields">
      <TypedField
        label="The square, across"
        :text="text('printer.across')"
        :fault="faults['printer.across']"
        @commit="set('printer.across', $event)"
      />
      <TypedField
        label="The square, up"
        :text="text('printer.up')"
        :fault="faults['printer.up']"
        @commit="set('printer.up', $event)"
      />
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
