<script setup lang="ts">
import { computed, ref } from 'vue'

import type { View } from '../../api/types'
import Drawing from '../../drawing/Drawing.vue'
import { between } from '../../drawing/morph'
import Choice from '../../fields/Choice.vue'
import { usePiece } from '../../piece/store'
import Findings from '../Findings.vue'
import LargeButton from '../LargeButton.vue'
import CutFigures from './CutFigures.vue'
import CutTable from './CutTable.vue'
import PassPanel from './PassPanel.vue'
import { leans } from './lean'
import RecordTable from './RecordTable.vue'
import { useRocking } from './rocking'

/** The piece standing on its floor: what bears, what floats, where to cut, when to stop. */
const store = usePiece()
const rounds = computed(() => store.plan?.level ?? [])
const now = computed(() => rounds.value.at(-1))
const tipped = ref(false)
/** The view that is looked at large. */
const large = ref('')
const TIMES = [
  { value: '1', title: 'as it is' },
  { value: '5', title: '5 times' },
  { value: '20', title: '20 times' },
  { value: '60', title: '60 times' },
]
const all = computed(() => store.drawings?.piece ?? [])
const tips = computed(() => all.value.some((v) => v.shows === 'tips'))
const rock = useRocking()
const pair = (name: string): [View, View] | null => {
  const rests = all.value.find((v) => v.name === name)
  return rests ? [rests, all.value.find((v) => v.name === `${name}.tips`) ?? rests] : null
}
const views = computed(() => {
  const at = rock.going.value ? rock.at.value : tipped.value ? 1 : 0
  return ['level.front', 'level.side'].flatMap((name) => {
    const both = pair(name)
    return both ? [{ ...between(both[0], both[1], at), name }] : []
  })
})
const feet = computed(() => all.value.filter((v) => v.shows === 'foot'))
const leaning = computed(() =>
  now.value ? leans(now.value.falls_right, now.value.falls_back) : '',
)
</script>

<template>
  <div class="station">
    <div class="left">
      <div class="over">
        <Choice
          label="Drawn"
          :items="TIMES"
          :value="String(store.exaggerate)"
          @choose="store.enlarge(Number($event))"
        />
        <button
          v-if="tips"
          class="plain word"
          type="button"
          data-rock
          :aria-pressed="tipped"
          @click="tipped = !tipped"
        >
          {{ tipped ? 'let it rest' : 'tip it over' }}
        </button>
        <button
          v-if="tips && rock.moves.value"
          class="plain word"
          type="button"
          data-push
          :aria-pressed="rock.going.value"
          @click="rock.push()"
        >
          {{ rock.going.value ? 'hold it still' : 'rock it' }}
        </button>
      </div>
      <p v-if="now" class="stands" role="status" data-stands>
        {{ now.bears }}
        <component :is="now.rocks.value > 0.3 ? 'strong' : 'span'" v-if="now.rocks">
          It rocks by {{ now.rocks.text }}.
        </component>
        {{ ` The top leans ${leaning}. It stands ${now.height_now.text} high.` }}
      </p>
      <div class="views" :class="{ led: large }">
        <figure
          v-for="view in views"
          :key="view.name"
          :class="{ large: view.name === large, small: large && view.name !== large }"
        >
          <figcaption>
            {{ view.title }}
            <LargeButton v-model="large" :name="view.name" :title="view.title" />
          </figcaption>
          <Drawing :view="view" :lit="store.lit" :letter="12" @point="store.lit = $event" />
        </figure>
      </div>
      <div class="feet">
        <figure v-for="view in feet" :key="view.name">
          <figcaption>{{ view.title }}</figcaption>
          <Drawing :view="view" :lit="store.lit" :letter="12" />
        </figure>
      </div>
      <p class="key quiet">
        Dashed red: the line to cut, what falls off below it. Long and dotted: how the top is to
        lie.
      </p>
      <CutTable v-if="now" :round="now" />
    </div>
    <aside class="panel">
      <Findings station="level" />
      <template v-if="now">
        <PassPanel :round="now" :count="rounds.length" />
        <CutFigures :round="now" />
        <RecordTable v-if="rounds.length > 1" :rounds="rounds" />
      </template>
      <p v-else>This piece has no feet to level yet.</p>
    </aside>
  </div>
</template>

<style scoped src="../station.css"></style>
<style scoped>
.over {
  display: flex;
  gap: 1.5rem;
  align-items: baseline;
  flex-wrap: wrap;
}
.stands {
  font-size: 1.02rem;
  padding: 0.15rem 0;
}
.stands strong {
  color: var(--cut);
}
.views {
  display: grid;
  grid-template-columns: 1fr 1fr;
  flex: 1 1 0;
  min-height: 210px;
}
.station {
  grid-template-columns: 2fr minmax(400px, 1fr);
}
.led {
  grid-template-columns: minmax(0, 3fr) minmax(0, 1fr);
}
.led .large {
  order: -1;
}
.views figure {
  display: flex;
  flex-direction: column;
}
.views :deep(svg) {
  flex: 1;
  min-height: 0;
}
.feet {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 0 0.4rem;
}
.feet figcaption {
  text-align: center;
}
.feet :deep(svg) {
  height: 96px;
}
.key {
  font-size: 0.82rem;
}
@media (max-width: 1100px) {
  .station {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 700px) {
  .views {
    grid-template-columns: 1fr;
    flex: none;
  }
}
</style>
