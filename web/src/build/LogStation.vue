<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { usePiece } from '../piece/store'
import CostPanel from './CostPanel.vue'
import LogList from './LogList.vue'
import NoteSheet from './NoteSheet.vue'
import PhotoButton from './PhotoButton.vue'
import { useBuild } from './store'

/** What happened to this piece, and what there is to add. */
const store = usePiece()
const build = useBuild()
const noting = ref(false)
/** Positions that were tried at the stance, and why they were left. */
const trials = computed(() => store.piece?.trials ?? [])
watch(
  () => [store.id, store.copy] as const,
  ([id, copy]) => id && void build.open(id, copy),
  { immediate: true },
)
</script>

<template>
  <div class="log-station">
    <div class="acts">
      <v-btn size="small" data-log-add @click="noting = true">add a note, a lesson, a repair</v-btn>
      <PhotoButton step="" />
      <p v-if="build.said" role="status">{{ build.said }}</p>
    </div>
    <div class="two">
      <LogList :piece="store.id" :stamp="build.deeds.length" />
      <div>
        <section v-if="trials.length" class="trials" aria-label="Tried and left">
          <h2>Tried and left</h2>
          <p v-for="trial in trials" :key="trial.name" data-trial>
            <b>{{ trial.name }}</b>{{ trial.why ? `: ${trial.why}` : '' }}
          </p>
        </section>
        <CostPanel />
      </div>
    </div>
    <NoteSheet v-if="noting" v-model="noting" />
  </div>
</template>

<style scoped>
.log-station {
  padding: 0.6rem 1.25rem 2rem;
  overflow-y: auto;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: 2.5rem;
}
@media (max-width: 1100px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
.trials {
  padding-bottom: 0.8rem;
}
.trials h2 {
  font-size: 1.2rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.2rem;
  align-items: center;
}
</style>
