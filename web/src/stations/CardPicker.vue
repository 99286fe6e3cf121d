<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { SetUp } from '../api/types'
import Choice from '../fields/Choice.vue'
import { usePiece } from '../piece/store'
import SetUpCard from './SetUpCard.vue'

/** The cards of a station, one at a time: chosen by legs, then by tool. */
const props = defineProps<{ /** The station whose cards are shown. */ station: string }>()
const emit = defineEmits<{ /** The legs of the card now shown. */ legs: [legs: number[]] }>()
const store = usePiece()
const KEPT = 'proud-rake.tool.'

const cards = computed(() => (store.plan?.setups ?? []).filter((c) => c.station === props.station))
const groups = computed(() => [...new Set(cards.value.map((c) => c.legs.join(', ')))])
const legs = ref('')
const tool = ref(localStorage.getItem(KEPT + props.station) ?? '')
const group = computed(() =>
  groups.value.includes(legs.value) ? legs.value : (groups.value[0] ?? ''),
)
const mine = computed(() => cards.value.filter((c) => c.legs.join(', ') === group.value))
const keyOf = (card: SetUp): string => card.id.split('.').slice(2).join('.')
const card = computed(() => mine.value.find((c) => keyOf(c) === tool.value) ?? mine.value[0])

function choose(key: string): void {
  tool.value = key
  localStorage.setItem(KEPT + props.station, key)
}
watch(group, (to) => emit('legs', to.split(', ').map(Number)), { immediate: true })
</script>

<template>
  <div class="picker">
    <Choice
      v-if="groups.length > 1"
      label="Which legs"
      :items="groups.map((g) => ({ value: g, title: `${g.includes(',') ? 'legs' : 'leg'} ${g}` }))"
      :value="group"
      @choose="legs = $event"
    />
    <Choice
      v-if="mine.length > 1"
      label="With which tool"
      :items="mine.map((c) => ({ value: keyOf(c), title: c.tool }))"
      :value="card ? keyOf(card) : ''"
      @choose="choose"
    />
    <SetUpCard v-if="card" :key="keyOf(card)" :card="card" />
    <p v-else>
      No tool for this is in the shop yet.
      <RouterLink to="/shop">Say which ones you own</RouterLink> and their settings appear here.
    </p>
  </div>
</template>

<style scoped>
.picker {
  display: grid;
  gap: 0.6rem;
  align-content: start;
}
</style>
