<script setup lang="ts">
import { computed, watch } from 'vue'

import { api, ask } from '../api/client'
import type { BuildDocument, Finishing } from '../api/types'
import Choice from '../fields/Choice.vue'
import { labelOf, numberOf, startOf, type Words, wordsOf } from '../fields/published'
import { usePiece } from '../piece/store'
import { useAsked } from './asked'
import BareNumber from './BareNumber.vue'
import { useBuild } from './store'

/** The finish: coats, waits, how much of it, what stays bare, what is handed over. */
const store = usePiece()
const build = useBuild()
watch(
  () => [store.id, store.copy] as const,
  ([id, copy]) => id && void build.open(id, copy),
  { immediate: true },
)
const {
  got: finish,
  said,
  look,
} = useAsked<Finishing>(
  () =>
    ask(
      api.GET('/api/pieces/{id}/build/finish', { params: { path: { id: build.id } } }),
    ) as Promise<Finishing>,
)
watch(
  () => build.build,
  (got) => got && void look(),
  { immediate: true },
)
const own = computed(() => build.build?.document)
/** What it is used for; the core says what its kind says. */
const USES = wordsOf('Build', 'used', 'Build').filter((one) => one.value)
const words = (field: string): Words => wordsOf('Build', field, 'Build')
const label = (field: string): string => labelOf('Build', field, 'Build')
const AIR_C = startOf<number>('Build', 'air_c', 'Build')
const hours = (from: number, to: number): string => `${Math.round(from)} to ${Math.round(to)} h`
const millilitres = (litres: number): string => `${Math.max(1, Math.round(litres * 1000))} ml`
const state = (number: number): string => build.step(`finish.${number}`)?.state ?? ''
const set = (change: Partial<BuildDocument>): Promise<boolean> => build.change(() => change)
</script>

<template>
  <div class="station">
    <div class="left">
      <p v-if="said" role="status">{{ said }}</p>
      <template v-if="finish">
        <p v-if="finish.unfit" class="care" role="alert" data-unfit>{{ finish.unfit }}</p>
        <div v-if="finish.coats.length" class="over" tabindex="0" role="group" aria-label="Coats">
          <v-table>
            <caption>
              {{
                finish.finish
              }}:
              {{
                finish.coats.length
              }}
              coats,
              {{
                finish.days.toFixed(1)
              }}
              days of drying
            </caption>
            <thead>
              <tr>
                <th scope="col">coat</th>
                <th scope="col">what and how</th>
                <th scope="col">wiped off after</th>
                <th scope="col">dries</th>
                <th scope="col">then rubbed down</th>
                <th scope="col">of it</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="coat in finish.coats"
                :key="coat.number"
                :class="state(coat.number)"
                data-coat
              >
                <td class="figures">
                  {{ coat.number }}{{ state(coat.number) === 'done' ? ' ✓' : '' }}
                </td>
                <td>
                  <b>{{ coat.what }}</b>, {{ coat.how }}
                </td>
                <td class="figures">
                  {{ coat.wiped_after ? `${coat.wiped_after} min` : 'not wiped' }}
                </td>
                <td class="figures">{{ hours(coat.dry_h[0], coat.dry_h[1]) }}</td>
                <td>{{ coat.then || 'not any more' }}</td>
                <td class="figures">{{ millilitres(coat.litres) }}</td>
              </tr>
            </tbody>
          </v-table>
        </div>
        <p v-else-if="!finish.unfit">It stays as it comes from the tool.</p>
        <dl>
          <dt>Surface</dt>
          <dd data-area>
            <span class="figures">{{ finish.area_m2.toFixed(2) }} m²</span>
            <span class="quiet">
              ({{ finish.area_parts.map(([name, m2]) => `${name} ${m2.toFixed(2)}`).join(', ') }})
            </span>
          </dd>
          <template v-if="finish.litres">
            <dt>In all</dt>
            <dd class="figures" data-litres>{{ millilitres(finish.litres) }}</dd>
          </template>
          <template v-if="finish.mask.length">
            <dt>Stays bare</dt>
            <dd data-mask>{{ finish.mask.join('; ') }}</dd>
          </template>
          <template v-if="finish.coats.length">
            <dt>Stands on</dt>
            <dd>{{ finish.stands_on }}</dd>
          </template>
          <dt>To hand over</dt>
          <dd data-care>{{ finish.care }}</dd>
        </dl>
      </template>
    </div>
    <aside v-if="own && finish" class="panel">
      <Choice
        :label="label('used')"
        :items="USES"
        :value="finish.use"
        @choose="set({ used: $event as 'feet' })"
      />
      <Choice
        :label="label('finish')"
        :items="words('finish')"
        :value="own.finish ?? startOf('Build', 'finish', 'Build')"
        @choose="set({ finish: $event as 'soap' })"
      />
      <Choice
        :label="label('prefinish')"
        :items="words('prefinish')"
        :value="own.prefinish ? 'yes' : 'no'"
        @choose="set({ prefinish: $event === 'yes' })"
      />
      <Choice
        :label="label('reused')"
        :items="words('reused')"
        :value="own.reused ? 'yes' : 'no'"
        @choose="set({ reused: $event === 'yes' })"
      />
      <BareNumber
        v-bind="numberOf('Build', 'air_c', 'Build')"
        :value="own.air_c ?? AIR_C"
        @commit="(c) => set({ air_c: c ?? AIR_C })"
      />
      <p v-if="build.said" class="care" role="status">{{ build.said }}</p>
      <p v-for="line in finish.cautions" :key="line" class="care" data-caution>{{ line }}</p>
      <p>Never a stain or a coat on what will be cut off.</p>
      <p class="quiet small">Common practice; the tin goes before it.</p>
    </aside>
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
.over {
  overflow-x: auto;
}
.v-table {
  margin: 0.4rem 0 0.8rem;
}
caption {
  text-align: left;
  font-weight: 650;
  font-size: 1.2rem;
  padding-bottom: 0.4rem;
}
td:nth-child(2) {
  min-width: 12rem;
}
tr.done {
  opacity: 0.75;
}
dl {
  display: grid;
  grid-template-columns: 7rem 1fr;
  gap: 0.35rem 1rem;
}
dt {
  font-weight: 650;
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
