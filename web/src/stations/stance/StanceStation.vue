<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'

import type { Handle, View } from '../../api/types'
import Drawing from '../../drawing/Drawing.vue'
import Choice from '../../fields/Choice.vue'
import { usePhoto } from '../../piece/photo'
import { usePiece } from '../../piece/store'
import Findings from '../Findings.vue'
import LargeButton from '../LargeButton.vue'
import { useSupport } from '../support'
import FramePanel from './FramePanel.vue'
import LeanPanel from './LeanPanel.vue'
import LeanStrip from './LeanStrip.vue'
import PlacePanel from './PlacePanel.vue'
import SupportsPanel from './SupportsPanel.vue'
import TopPanel from './TopPanel.vue'

const SolidView = defineAsyncComponent(() => import('../../drawing/SolidView.vue'))
const store = usePiece()
const photo = usePhoto()
const { support } = useSupport()
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
/** The view that is looked at large, the others small beside it; none where all are shown alike. */
const large = ref('')
const second = computed(() => (store.shown === 'sight' ? 'sight' : 'side'))

/** The directions worth looking along: from the side, all round, and those the core names. */
const looks = computed(() => [
  { value: 'side', title: 'from the side' },
  { value: 'solid', title: 'turn it round' },
  ...(store.plan?.looks ?? []).map((one) => ({ value: String(one.along), title: one.title })),
])
const look = computed(() => (store.shown === 'sight' ? String(store.along) : store.shown))

function turn(to: string): void {
  if (to === 'side' || to === 'solid') store.look(to)
  else store.look('sight', Number(to))
}
function drag(view: string, handle: Handle, to: [number, number], final: boolean): void {
  const named = view as 'front' | 'side' | 'plan'
  store.drag({ moves: handle.moves, view: named, leg: handle.leg, to }, final)
}
</script>

<template>
  <div class="station">
    <div class="drawings" :class="{ led: large && store.shown !== 'solid' }">
      <Choice class="looks" label="Seen" :items="looks" :value="look" @choose="turn" />
      <SolidView
        v-if="store.shown === 'solid'"
        class="solid"
        :meshes="store.drawings?.meshes ?? []"
      />
      <template v-else>
        <figure
          v-for="name in ['front', second, 'plan']"
          :key="name"
          :class="[name, { large: name === large, small: large && name !== large }]"
        >
          <figcaption>
            {{ views[name]?.title }}
            <LargeButton v-model="large" :name="name" :title="views[name]?.title ?? ''" />
          </figcaption>
          <Drawing
            v-if="views[name]"
            :view="views[name]"
            :lit="store.lit"
            :warned="warned"
            :under="name === 'plan' ? photo.under : null"
            :still="store.moving"
            live
            @drag="(handle, to, final) => drag(name, handle, to, final)"
            @point="store.lit = $event"
          />
        </figure>
      </template>
      <LeanStrip class="strip" />
    </div>
    <aside class="panel">
      <Findings station="stance" />
      <TopPanel />
      <SupportsPanel />
      <template v-if="support">
        <PlacePanel />
        <LeanPanel />
      </template>
      <FramePanel v-else />
    </aside>
  </div>
</template>

<style scoped>
.station {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 2fr minmax(390px, 1fr);
}
.drawings {
  min-height: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  grid-template-rows: auto minmax(0, 1fr) minmax(0, 1fr) auto;
}
.looks {
  grid-column: 1 / 3;
  padding: 0.2rem 0 0 0.9rem;
}
.solid {
  grid-column: 1 / 3;
  grid-row: 2 / 4;
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
.led {
  grid-template-columns: minmax(0, 3fr) minmax(0, 1fr);
}
.led .large {
  grid-column: 1;
  grid-row: 2 / 4;
}
.led .small {
  grid-column: 2;
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
    grid-template-columns: minmax(0, 1fr);
  }
  .drawings {
    grid-template-rows: auto minmax(220px, 32vh) minmax(220px, 32vh) auto;
  }
  .panel {
    border-left: 0;
    border-top: 1.5px solid var(--ink);
  }
}
</style>
