<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import Choice from '../fields/Choice.vue'
import { usePiece } from '../piece/store'
import SetUpCard from './SetUpCard.vue'
import { usePickedTool } from './tool'

/** The cards of a station, one at a time: chosen by the work, then by tool. */
const props = defineProps<{ /** The station whose cards are shown. */ station: string }>()
const emit = defineEmits<{
  /** The legs of the card now shown. */ legs: [legs: number[]]
  /** The parts of the card now shown, by key. */ parts: [parts: string[]]
}>()
const store = usePiece()

const cards = computed(() => (store.plan?.works ?? []).filter((c) => c.station === props.station))
const works = computed(() => {
  const found = new Map<string, string>()
  for (const card of cards.value) if (!found.has(card.work)) found.set(card.work, card.title)
  return [...found.entries()].map(([value, title]) => ({ value, title }))
})
const wanted = ref('')
const work = computed(() =>
  works.value.some((w) => w.value === wanted.value) ? wanted.value : (works.value[0]?.value ?? ''),
)
const mine = computed(() => cards.value.filter((c) => c.work === work.value))
const { picked, card, choose } = usePickedTool(
  mine,
  computed(() => props.station),
  work,
)
watch(
  work,
  () => {
    emit('legs', picked.value?.legs ?? [])
    emit('parts', picked.value?.parts ?? [])
  },
  { immediate: true },
)
</script>

<template>
  <div class="picker">
    <v-select
      v-if="works.length > 1"
      label="The work"
      :items="works"
      :model-value="work"
      data-work
      @update:model-value="wanted = $event"
    />
    <Choice
      v-if="mine.length > 1"
      label="With which tool"
      :items="mine.map((c) => ({ value: c.by, title: c.tool }))"
      :value="picked ? picked.by : ''"
      @choose="choose"
    />
    <SetUpCard v-if="card" :key="card.id" :card="card" />
    <p v-else-if="picked" aria-busy="true">{{ picked.title }}</p>
    <p v-else>
      No tool for this is in the shop yet.
      <RouterLink to="/shop">Say which ones you own</RouterLink> and their settings appear here.
    </p>
  </div>
</template>

<style scoped>
/* The name of a work is read whole. */
[data-work] :deep(.v-select__selection-text) {
  white-space: normal;
  overflow: visible;
  line-height: 1.3;
}
[data-work] :deep(.v-field__input) {
  height: auto;
}
.picker {
  display: grid;
  gap: 0.6rem;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
}
</style>
