<script setup lang="ts">
import { computed } from 'vue'

import type { Handle, View } from '../../api/types'
import Drawing from '../../drawing/Drawing.vue'
import { usePiece } from '../../piece/store'
import Findings from '../Findings.vue'
import LeanPanel from './LeanPanel.vue'
import LeanStrip from './LeanStrip.vue'
import PlacePanel from './PlacePanel.vue'
import TopPanel from './TopPanel.vue'

const store = usePiece()
const views = computed(() => {
  const found: Record<string, View> = {}
  for (const view of store.drawings?.piece ?? []) found[view.name] = view
  return found
})
const warned = computed(() =>
  (store.plan?.findings ?? [])
    .filter((f) => f.level !== 'note')
    .flatMap((f) => f.legs.map((n) => `leg.${n}`)),
)

function drag(view: string, handle: Handle, to: [number, number], final: boolean): void {
  const named = view as 'front' | 'side' | 'plan'
  store.drag({ moves: handle.moves, view: named, leg: handle.leg, to }, final)
}
</script>

<template>
  <div class="station">
    <div class="drawings">
      <figure v-for="name in ['front', 'side', 'plan']" :key="name" :class="name">
        <figcaption>{{ views[name]?.title }}</figcaption>
        <Drawing
          v-if="views[name]"
          :view="views[name]"
          :lit="store.lit"
          :warned="warned"
          live
          @drag="(handle, to, final) => drag(name, handle, to, final)"
          @point="store.lit = $event"
        />
      </figure>
      <LeanStrip class="strip" />
    </div>
    <aside class="panel">
      <Findings station="stance" />
      <TopPanel />
      <PlacePanel />
      <LeanPanel />
    </aside>
  </div>
</template>

<style scoped>
.station {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 430px;
}
.drawings {
  min-height: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  grid-template-rows: minmax(0, 1fr) minmax(0, 1fr) auto;
}
figure {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
figure :deep(svg) {
  flex: 1;
  min-height: 0;
}
.strip {
  grid-column: 1 / 3;
}
.plan {
  grid-column: 1 / 3;
}
figcaption {
  padding: 0.15rem 0 0 0.9rem;
  font-size: 0.82rem;
  opacity: 0.85;
}
.panel {
  border-left: 1.5px solid var(--ink);
  background: var(--sheet);
  padding: 0.7rem 1rem;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: 0.55rem;
}
@media (max-width: 900px) {
  .station {
    grid-template-columns: 1fr;
  }
  .drawings {
    height: 70vh;
  }
  .panel {
    border-left: 0;
    border-top: 1.5px solid var(--ink);
  }
}
</style>
