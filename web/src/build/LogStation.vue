<script setup lang="ts">
import { ref, watch } from 'vue'

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
      <CostPanel />
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
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.2rem;
  align-items: center;
}
</style>
