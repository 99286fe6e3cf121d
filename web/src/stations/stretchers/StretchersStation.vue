<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Handle } from '../../api/types'
import Drawing from '../../drawing/Drawing.vue'
import Choice from '../../fields/Choice.vue'
import { usePiece } from '../../piece/store'
import CardPicker from '../CardPicker.vue'
import Findings from '../Findings.vue'
import StickTable from '../StickTable.vue'
import AssemblyPanel from './AssemblyPanel.vue'
import FitPanel from './FitPanel.vue'
import MarksPanel from './MarksPanel.vue'
import MembersPanel from './MembersPanel.vue'

/** What runs between the legs: where it sits, how long it is, how its sockets are bored. */
const store = usePiece()
const parts = ref<string[]>([])
const views = computed(() => store.drawings?.piece ?? [])
const sticks = computed(() => store.plan?.sticks ?? [])
const rails = computed(() => sticks.value.filter((stick) => stick.role !== 'batten'))
const between = computed(() => (store.plan?.members.length ?? 0) > 0)
const roped = computed(() => (store.plan?.ropes.length ?? 0) > 0)
const TASKS = [
  { value: 'fit', title: 'fit dry and read' },
  { value: 'bore', title: 'bore the sockets' },
  { value: 'mark', title: 'marks on the work' },
  { value: 'order', title: 'put it together' },
]
const picked = ref('')
/** What comes next: legs are read dry first, then bored for what runs between them, then put together. */
const next = computed(() => {
  const asked = (store.plan?.proofs ?? []).filter((proof) => proof.station === 'stretchers')
  const waits = (fit: boolean): boolean => asked.some((proof) => !proof.answer && proof.dry === fit)
  return waits(true) ? 'fit' : waits(false) || !asked.length ? 'bore' : 'order'
})
const first = ref('')
watch(
  () => store.turned,
  () => (first.value = next.value),
  { immediate: true },
)
const task = computed(() => picked.value || first.value)
watch(task, (now) => (now === 'mark' || now === 'order') && store.opens({ more: true }), {
  immediate: true,
})
const legged = computed(() => (store.plan?.legs.length ?? 0) > 0)

function drag(view: string, handle: Handle, to: [number, number], final: boolean): void {
  const named = view as 'front' | 'side'
  store.drag({ moves: handle.moves, view: named, leg: handle.leg, to }, final)
}
</script>

<template>
  <div class="station">
    <div class="left">
      <div v-if="legged" class="views">
        <figure v-for="view in views" :key="view.name" :class="view.name">
          <figcaption>{{ view.title }}</figcaption>
          <Drawing
            :view="view"
            :lit="store.lit"
            :still="store.moving"
            live
            :letter="12"
            @drag="(handle, to, final) => drag(view.name, handle, to, final)"
            @point="store.lit = $event"
          />
        </figure>
      </div>
      <StickTable v-if="rails.length" :sticks="rails" :parts="parts" />
      <MembersPanel v-if="legged" />
    </div>
    <aside class="panel">
      <Findings station="stretchers" />
      <Choice v-if="between" label="" :items="TASKS" :value="task" @choose="picked = $event" />
      <FitPanel v-if="between && task === 'fit'" />
      <MarksPanel v-else-if="between && task === 'mark'" />
      <AssemblyPanel v-else-if="between && task === 'order'" />
      <CardPicker
        v-else-if="rails.length || between || roped"
        station="stretchers"
        @parts="parts = $event"
      />
      <p v-else>
        Nothing runs between the legs yet. Choose an arrangement at the left: its settings appear
        here.
      </p>
    </aside>
  </div>
</template>

<style scoped src="../station.css"></style>
<style scoped>
.views {
  display: grid;
  grid-template-columns: 1fr 1fr;
  flex: 0 0 270px;
}
.views :deep(svg) {
  height: 250px;
}
@media (max-width: 700px) {
  .views {
    grid-template-columns: 1fr;
    flex: none;
  }
}
</style>
