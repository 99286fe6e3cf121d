<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { api, ask } from '../api/client'
import type { GlueUp, Sitting } from '../api/types'
import Choice from '../fields/Choice.vue'
import { labelOf, numberOf, startOf, wordsOf } from '../fields/published'
import { usePiece } from '../piece/store'
import { useAsked } from './asked'
import BareNumber from './BareNumber.vue'
import GlueRun from './GlueRun.vue'
import { keptRun } from './glueRun'
import { useBuild } from './store'

/** The glue-up: what goes together within the open time of today, dry first, then in earnest. */
const store = usePiece()
const build = useBuild()
watch(
  () => [store.id, store.copy] as const,
  ([id, copy]) => id && void build.open(id, copy),
  { immediate: true },
)
const {
  got: glue,
  said,
  look,
} = useAsked<GlueUp | null>(() =>
  ask(
    api.GET('/api/pieces/{id}/build/glueup', {
      params: { path: { id: build.id }, query: { copy_number: build.copy } },
    }),
  ),
)
watch(
  () => build.build,
  (got) => got && void look(),
  { immediate: true },
)

const own = computed(() => build.build?.document)
const GLUES = wordsOf('Build', 'glue', 'Build')
const AIR_C = startOf<number>('Build', 'air_c', 'Build')
const AIR_RH = startOf<number>('Build', 'air_rh', 'Build')
const minutes = (value: number): string =>
  `${value < 10 ? value.toFixed(1) : Math.round(value)} min`
const hours = (value: number): string =>
  value < 1
    ? `${Math.round(value * 60)} min`
    : `${value < 10 ? value.toFixed(1) : Math.round(value)} h`
const state = (sitting: Sitting): string => {
  const those = sitting.stages.map((stage) => build.step(stage.step)?.state)
  return those.every((one) => one === 'done') ? 'done' : ''
}
/** A sitting that is under way, in this browser: it goes on where it was after a reload. */
const running = ref<{ sitting: number; dry: boolean } | null>(keptRun(store.id))
function begin(sitting: number, dry: boolean): void {
  running.value = { sitting, dry }
}
const share = (sitting: Sitting): number =>
  Math.min(1, sitting.minutes / Math.max(glue.value?.open_min ?? 1, 0.1))
</script>

<template>
  <div class="station">
    <div class="left">
      <p v-if="said" role="status">{{ said }}</p>
      <p v-if="glue === null" data-no-joints>Nothing of this piece is joined.</p>
      <template v-else-if="glue">
        <section
          v-for="(sitting, k) in glue.sittings"
          :key="k"
          class="sitting"
          :class="{ over: !sitting.fits, done: state(sitting) }"
          :data-sitting="k"
        >
          <header>
            <h2>
              {{ sitting.stages.map((stage) => stage.title).join(', then ') }}
              <span v-if="state(sitting)" class="state">done</span>
            </h2>
            <p v-if="sitting.joints" class="fit">
              {{ sitting.joints }} {{ sitting.joints === 1 ? 'joint' : 'joints' }}, about
              {{ minutes(sitting.minutes) }}
              <template v-if="glue.open_min">
                of {{ minutes(glue.open_min) }} open
                <span class="bar" aria-hidden="true"
                  ><i :style="{ width: `${share(sitting) * 100}%` }"
                /></span>
              </template>
            </p>
          </header>
          <div v-for="stage in sitting.stages" :key="stage.step" class="stage">
            <h3 v-if="sitting.stages.length > 1">{{ stage.title }}</h3>
            <ol>
              <li v-for="line in stage.steps" :key="line">{{ line }}</li>
            </ol>
            <p v-for="line in stage.watch" :key="line" data-watch>{{ line }}</p>
            <p v-if="stage.at_hand.length"><b>At hand:</b> {{ stage.at_hand.join('; ') }}</p>
            <p v-if="stage.blocks.length" data-blocks>
              <b>Clamping blocks, off square:</b>
              {{ stage.blocks.map((block) => `${block.slope.text} ${block.where}`).join('; ') }}
            </p>
          </div>
          <p v-if="sitting.joints" class="acts">
            <v-btn size="small" :data-dry="k" @click="begin(k, true)">rehearse it dry</v-btn>
            <v-btn size="small" :data-glue="k" @click="begin(k, false)">glue it</v-btn>
          </p>
        </section>
      </template>
    </div>
    <aside v-if="own && glue" class="panel">
      <Choice
        :label="labelOf('Build', 'glue', 'Build')"
        :items="GLUES"
        :value="own.glue ?? startOf('Build', 'glue', 'Build')"
        @choose="build.change(() => ({ glue: $event as NonNullable<typeof own.glue> }))"
      />
      <div class="air">
        <BareNumber
          v-bind="numberOf('Build', 'air_c', 'Build')"
          :value="own.air_c ?? AIR_C"
          data-air
          @commit="(c) => build.change(() => ({ air_c: c ?? AIR_C }))"
        />
        <BareNumber
          v-bind="numberOf('Build', 'air_rh', 'Build')"
          :value="own.air_rh ?? AIR_RH"
          data-damp
          @commit="(c) => build.change(() => ({ air_rh: c ?? AIR_RH }))"
        />
        <BareNumber
          v-bind="numberOf('Build', 'open_min', 'Build')"
          :value="own.open_min ?? null"
          data-own-open
          @commit="(c) => build.change(() => ({ open_min: c }))"
        />
      </div>
      <p v-if="build.said" class="care" role="status">{{ build.said }}</p>
      <dl v-if="glue.open_min">
        <dt>Stays open today</dt>
        <dd class="figures" data-open>{{ minutes(glue.open_min) }}</dd>
        <dt>Clamps on</dt>
        <dd class="figures">{{ hours(glue.clamp_h) }} at least</dd>
        <dt>A joint takes</dt>
        <dd>
          <span class="figures">{{ minutes(glue.pace) }}</span>{{
            glue.paced_by ? `, by ${glue.paced_by} glue-ups of yours` : ', as is usual'
          }}
        </dd>
      </dl>
      <p v-if="glue.told">{{ glue.told }}</p>
      <p v-for="line in glue.cautions" :key="line" class="care" data-against>{{ line }}</p>
      <template v-if="glue.open_min">
        <h3>What squeezes out</h3>
        <p>{{ glue.clean }}</p>
        <h3>If you must stop midway</h3>
        <p data-saved>{{ glue.saved }}</p>
        <p v-if="glue.heat_opens">Heat opens it again.</p>
        <p class="quiet small">
          Times are common practice; the tin says what holds for its own glue, and goes before them.
        </p>
      </template>
    </aside>
    <GlueRun
      v-if="running && glue?.sittings[running.sitting]"
      :sitting="glue.sittings[running.sitting]!"
      :number="running.sitting"
      :dry="running.dry"
      :open-min="glue.open_min"
      :saved="glue.saved"
      @over="running = null"
    />
  </div>
</template>

<style scoped src="../stations/station.css"></style>
<style scoped>
.station {
  grid-template-columns: minmax(0, 1fr) 430px;
}
.panel {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}
.sitting {
  padding: 0.5rem 0 0.8rem;
  border-bottom: 1.5px solid var(--ink);
}
.sitting h2 {
  font-size: 1.2rem;
}
.state {
  color: var(--measured);
}
.fit {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.7rem;
  align-items: center;
}
.bar {
  width: 160px;
  height: 12px;
  border: 1.5px solid var(--ink);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--measured);
}
.over .bar i {
  background: var(--cut);
}
.over .fit {
  color: var(--cut);
  font-weight: 650;
}
.stage ol {
  padding-left: 1.3rem;
  margin: 0.2rem 0;
}
.acts {
  display: flex;
  gap: 0.8rem;
  padding-top: 0.4rem;
}
.air {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem 1rem;
}
.air > :last-child {
  grid-column: 1 / -1;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.2rem 1rem;
}
dd {
  font-weight: 600;
}
.care {
  border-left: 6px double var(--caution);
  padding-left: 8px;
}
.small {
  font-size: 0.88rem;
}
@media (max-width: 1100px) {
  .station {
    grid-template-columns: minmax(0, 1fr);
  }
}
/* What is done comes first, what it depends on after. */
@media (max-width: 600px) {
  .panel {
    order: 1;
  }
}
</style>
