<script setup lang="ts">
import { computed } from 'vue'

import { usePiece } from '../piece/store'
import { useShop } from '../shop/store'

/** Takes one reading from the instrument on the bench, where there is one. */
const props = defineProps<{ /** Id of the proof. */ proof: string }>()
const store = usePiece()
const shop = useShop()
const there = computed(
  () => store.rehearsal !== null || (shop.shop?.instruments ?? 'none') !== 'none',
)
const last = computed(() => store.heard?.proof === props.proof && store.heard.state !== 'read')
</script>

<template>
  <button
    v-if="there"
    class="plain word gauge"
    type="button"
    :data-gauge="proof"
    @click="store.take(proof)"
  >
    {{ last ? 'gauge, again' : 'gauge' }}
  </button>
</template>

<style scoped>
.gauge {
  font-size: 0.84rem;
  margin-right: 0.8rem;
}
</style>
