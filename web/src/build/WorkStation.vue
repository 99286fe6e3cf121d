<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import type { BuildDocument, BuildStep } from '../api/types'
import Choice from '../fields/Choice.vue'
import { labelOf, startOf, type Words, wordsOf } from '../fields/published'
import { usePiece } from '../piece/store'
import AddStep from './AddStep.vue'
import { long, when } from './long'
import { useBuild } from './store'

/** The order of work: what comes when and why, and the maker's own way with it. */
const store = usePiece()
const build = useBuild()
watch(
  () => [store.id, store.copy] as const,
  ([id, copy]) => id && void build.open(id, copy),
  { immediate: true },
)
const chosen = ref('')
const step = computed(
  () =>
    build.steps.find((one) => one.key === chosen.value) ??
    build.steps.find((one) => one.key === build.next) ??
    build.steps[0],
)
const adding = ref(false)
const keys = computed(() => build.steps.map((one) => one.key))
const make = computed(() => build.build?.make ?? 1)
const broken = computed(() => build.steps.filter((one) => one.broken.length).length)
const changed = computed(() => {
  const own = build.build?.document
  if (!own) return false
  const many = [own.order, own.skipped, own.added, own.split, own.merged]
  return many.some((list) => (list?.length ?? 0) > 0)
})

const list = ref<HTMLElement>()
/** It opens on the step to go on with. */
watch(
  () => build.build?.name,
  async (there) => {
    await nextTick()
    if (there) list.value?.querySelector('.on')?.scrollIntoView({ block: 'center' })
  },
  { immediate: true },
)
/** The order with a step at another place. */
function placed(key: string, to: number): Partial<BuildDocument> {
  const others = keys.value.filter((one) => one !== key)
  const place = Math.max(0, Math.min(others.length, to))
  if (keys.value.indexOf(key) === place) return {}
  return { order: [...others.slice(0, place), key, ...others.slice(place)] }
}
/** Move a step, `to` being its place as the order is when its turn comes; it keeps the focus. */
async function move(key: string, to: () => number): Promise<void> {
  if (!(await build.change(() => placed(key, to())))) return
  chosen.value = key
  await nextTick()
  list.value?.querySelector<HTMLElement>(`[data-step="${CSS.escape(key)}"] .pick`)?.focus()
}
const by = (key: string, steps: number): Promise<void> =>
  move(key, () => keys.value.indexOf(key) + steps)
function nudge(event: KeyboardEvent, one: BuildStep): void {
  const steps = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (!steps) return
  event.preventDefault()
  if (event.altKey) void by(one.key, steps)
  else {
    const to = keys.value[keys.value.indexOf(one.key) + steps]
    if (!to) return
    chosen.value = to
    list.value?.querySelector<HTMLElement>(`[data-step="${CSS.escape(to)}"] .pick`)?.focus()
  }
}

const held = ref('')
const over = ref('')
function drop(on: string): void {
  if (held.value && held.value !== on) {
    void move(held.value, () => keys.value.indexOf(on))
  }
  held.value = over.value = ''
}

/** Steps that readings show were done, as far as they are not ticked here meanwhile. */
const shown = computed(() => {
  const keys = build.build?.shown_done ?? []
  return build.steps.filter((one) => keys.includes(one.key) && one.state !== 'done')
})
function tickShown(): void {
  for (const one of shown.value) build.tick(one)
}

const skip = (one: BuildStep): Promise<boolean> =>
  build.change((own) => ({ skipped: [...(own.skipped ?? []), { key: one.key, why: '' }] }))
const takeIn = (key: string): Promise<boolean> =>
  build.change((own) => ({ skipped: (own.skipped ?? []).filter((one) => one.key !== key) }))
const split = (one: BuildStep): Promise<boolean> =>
  build.change((own) => ({ split: [...(own.split ?? []), one.key] }))
const whole = (one: BuildStep): Promise<boolean> =>
  build.change((own) => ({
    split: (own.split ?? []).filter((key) => key !== one.split_from),
  }))
const isSplit = (one: BuildStep): boolean => one.split_from !== ''
const merge = (one: BuildStep, other: BuildStep): Promise<boolean> =>
  build.change((own) => ({
    merged: [...(own.merged ?? []), [one.key, other.key] as [string, string]],
  }))
const part = (one: BuildStep): Promise<boolean> =>
  build.change((own) => ({ merged: (own.merged ?? []).filter((keys) => keys[0] !== one.key) }))
const away = (one: BuildStep): Promise<boolean> =>
  build.change((own) => ({
    added: (own.added ?? []).filter((mine) => mine.id !== one.key),
    order: (own.order ?? []).filter((key) => key !== one.key),
  }))
const after = computed(() => build.steps[keys.value.indexOf(step.value?.key ?? '') + 1])
const again = (): Promise<boolean> =>
  build.change(() => ({ order: [], skipped: [], added: [], split: [], merged: [] }))
const bench = (key: string): string => `/piece/${store.id}/bench/${encodeURIComponent(key)}`
/** A choice about the build: what it is called, the words of it. */
const of = (field: string): { label: string; items: Words } => ({
  label: labelOf('Build', field, 'Build'),
  items: wordsOf('Build', field, 'Build'),
})
</script>

<template>
  <div class="station work">
    <div class="left">
      <p v-if="build.wrong" role="alert" class="wrong">{{ build.wrong }}</p>
      <p v-else-if="!build.build" class="quiet" role="status">
        {{ build.away ? 'The workshop does not answer. Trying again.' : 'Setting out the work.' }}
      </p>
      <template v-else>
        <p class="sum">
          <RouterLink v-if="build.next" class="go" :to="`/piece/${store.id}/bench`" data-to-bench>
            {{
              build.build.spent || build.steps.some((s) => s.state === 'done')
                ? 'carry on'
                : 'begin'
            }}
            at the bench
          </RouterLink>
          <span v-else data-all-done>Everything is done.</span>
          <span data-left>{{ long(build.build.left) }} to go</span>
          <span v-if="build.build.spent">{{ long(build.build.spent) }} spent</span>
          <span v-if="make > 1">{{ make }} of them, worked step by step</span>
          <span v-if="broken" class="cut" data-broken-count>
            {{ broken }} {{ broken === 1 ? 'step stands' : 'steps stand' }} too early
          </span>
        </p>
        <p v-if="shown.length" class="said" data-shown-done>
          Your readings show that
          {{ shown.length === 1 ? 'one step is' : `${shown.length} steps are` }} done that
          {{ shown.length === 1 ? 'is' : 'are' }} not ticked.
          <button class="plain word" type="button" data-tick-shown @click="tickShown">
            tick {{ shown.length === 1 ? 'it' : 'them' }}
          </button>
        </p>
        <p v-if="build.said" class="said" role="status" data-work-said>{{ build.said }}</p>
        <ol ref="list" class="steps" aria-label="Order of work">
          <li
            v-for="(one, k) in build.steps"
            :key="one.key"
            :class="[one.state, { on: one.key === step?.key, over: over === one.key }]"
            :data-step="one.key"
            draggable="true"
            @dragstart="held = one.key"
            @dragover.prevent="over = one.key"
            @dragend="held = over = ''"
            @drop.prevent="drop(one.key)"
          >
            <span class="mark" aria-hidden="true" />
            <button
              class="plain pick"
              type="button"
              :aria-current="one.key === step?.key ? 'step' : undefined"
              @click="chosen = one.key"
              @keydown="nudge($event, one)"
            >
              <span class="k figures">{{ k + 1 }}</span>
              <span class="title">{{ one.title }}</span>
              <span class="state">
                <template v-if="make > 1">{{ one.copies_done }} of {{ make }}</template>
                <template v-else-if="one.state === 'done'">done</template>
                <template v-else-if="one.state === 'begun'">begun</template>
                <template v-else-if="one.state === 'waiting'"
                  >waits till {{ when(one.until ?? '') }}</template
                >
                <template v-else-if="one.key === build.next">next</template>
              </span>
              <span class="took figures">{{ long(one.minutes) }}</span>
            </button>
            <p v-if="one.wait" class="rest quiet">
              then rests {{ one.wait.least_h
              }}{{ one.wait.most_h > one.wait.least_h ? ` to ${one.wait.most_h}` : '' }} h
            </p>
            <p v-for="bad in one.broken" :key="bad.wants" class="bad" data-broken>
              <b>{{ bad.wanted }}</b> {{ bad.skipped ? 'is left out' : 'comes later' }}:
              {{ bad.why }}. What it costs: {{ bad.costs }}.
            </p>
          </li>
        </ol>
        <div v-if="build.build.skipped.length" class="out">
          <h2>Left out</h2>
          <p v-for="one in build.build.skipped" :key="one.key">
            {{ one.title }}
            <button
              class="plain word"
              type="button"
              :data-take-in="one.key"
              @click="takeIn(one.key)"
            >
              take it in again
            </button>
          </p>
        </div>
      </template>
    </div>
    <aside v-if="step && build.build" class="panel" :data-panel="step.key">
      <h2>{{ step.title }}</h2>
      <p class="acts">
        <RouterLink class="on" :to="bench(step.key)">to the bench</RouterLink>
        <RouterLink v-if="step.station" class="on" :to="`/piece/${store.id}/${step.station}`">
          its station
        </RouterLink>
      </p>
      <ul v-if="step.do.length" class="do">
        <li v-for="line in step.do" :key="line">{{ line }}</li>
      </ul>
      <p v-if="step.lay_out.length"><b>At hand:</b> {{ step.lay_out.join('; ') }}</p>
      <p v-if="step.marks.length"><b>Leaves on the wood:</b> {{ step.marks.join(', ') }}</p>
      <p v-if="step.proofs.length"><b>Read at it:</b> {{ step.proofs.length }}</p>
      <p>
        <b>Takes</b> {{ long(step.minutes)
        }}{{ step.whose ? `, by ${step.whose} of your own` : ', as is usual' }}
      </p>
      <p v-if="step.caution" class="care">{{ step.caution }}</p>
      <div v-if="step.wants.length">
        <h3>What must stand before it</h3>
        <ul class="wants">
          <li v-for="want in step.wants" :key="want.key" :class="{ met: want.done }">
            <b>{{ want.title }}</b>: {{ want.why }}
          </li>
        </ul>
      </div>
      <p v-for="lesson in step.lessons" :key="lesson.at" class="lesson">
        <b>{{ lesson.by ?? 'Somebody' }}{{ lesson.piece ? `, ${lesson.piece}` : '' }}:</b>
        {{ lesson.says }}
      </p>
      <div class="acts" role="group" aria-label="This step">
        <button class="plain word" type="button" data-up @click="step && by(step.key, -1)">
          earlier
        </button>
        <button class="plain word" type="button" data-down @click="step && by(step.key, 1)">
          later
        </button>
        <button v-if="!step.own" class="plain word" type="button" data-skip @click="skip(step)">
          leave it out
        </button>
        <button v-else class="plain word" type="button" data-away @click="away(step)">
          take it away
        </button>
        <button
          v-if="step.units.length > 1 && !step.merged.length && !isSplit(step)"
          class="plain word"
          type="button"
          data-split
          @click="split(step)"
        >
          one by one
        </button>
        <button
          v-if="isSplit(step)"
          class="plain word"
          type="button"
          data-whole
          @click="whole(step)"
        >
          all in one again
        </button>
        <button
          v-if="after && !step.merged.length && !after.merged.length"
          class="plain word"
          type="button"
          data-merge
          @click="merge(step, after)"
        >
          in one with the next
        </button>
        <button
          v-if="step.merged.length"
          class="plain word"
          type="button"
          data-part
          @click="part(step)"
        >
          apart again
        </button>
        <button class="plain word" type="button" data-add @click="adding = true">
          add a step before it
        </button>
      </div>
      <hr />
      <Choice
        v-bind="of('outline')"
        :value="build.build.document.outline ?? startOf('Build', 'outline', 'Build')"
        @choose="build.change(() => ({ outline: $event as 'after_boring' | 'before_boring' }))"
      />
      <Choice
        v-bind="of('glue')"
        :value="build.build.document.glue ?? startOf('Build', 'glue', 'Build')"
        @choose="build.change(() => ({ glue: $event as 'yellow' | 'hide' | 'none' }))"
      />
      <Choice
        v-bind="of('prefinish')"
        :value="build.build.document.prefinish ? 'yes' : 'no'"
        @choose="build.change(() => ({ prefinish: $event === 'yes' }))"
      />
      <p class="acts">
        <button class="plain word" type="button" data-keep-order @click="build.keepOrder()">
          keep this order for the next of its kind
        </button>
        <RouterLink class="on" :to="`/piece/${store.id}/class`" data-class-link
          >for a class</RouterLink
        >
        <button v-if="changed" class="plain word" type="button" data-again @click="again()">
          back to the usual order
        </button>
      </p>
      <p class="quiet small">Drag a step, or Alt with the arrows, to put it elsewhere.</p>
    </aside>
    <AddStep v-if="adding && step" v-model="adding" :before="step" />
  </div>
</template>

<style scoped src="../stations/station.css"></style>
<style scoped>
.station {
  grid-template-columns: minmax(0, 1fr) 460px;
}
.panel {
  display: flex;
  flex-direction: column;
  gap: 0.55rem;
}
.panel h2 {
  font-size: 1.25rem;
}
.sum {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.6rem;
  align-items: baseline;
  padding: 0.3rem 0 0.5rem;
}
.go {
  color: var(--paper);
  background: var(--ink);
  padding: 0.45rem 1.1rem;
  font-weight: 650;
  text-decoration: none;
}
.cut,
.wrong {
  color: var(--cut);
  font-weight: 650;
}
.said {
  border-left: 6px solid var(--measured);
  padding-left: 8px;
}
.steps {
  list-style: none;
  padding: 0;
  margin: 0;
}
.steps li {
  position: relative;
  border-top: 1px solid var(--line);
  padding-left: 26px;
}
.steps li.over {
  border-top: 3px solid var(--cut);
}
.steps li.on {
  background: var(--sheet);
}
.mark {
  position: absolute;
  left: 5px;
  top: 11px;
  width: 12px;
  height: 12px;
  border: 1.5px solid var(--ink);
}
.done .mark {
  background: var(--measured);
  border-color: var(--measured);
}
.begun .mark {
  border-bottom-width: 7px;
}
.waiting .mark {
  border-style: dashed;
}
.pick {
  display: grid;
  grid-template-columns: 2.2rem minmax(0, 1fr) auto 7rem;
  gap: 0 0.6rem;
  width: 100%;
  text-align: left;
  min-height: 34px;
  align-items: center;
}
.on .title {
  font-weight: 650;
}
.done .title {
  opacity: 0.75;
}
.k {
  text-align: right;
  opacity: 0.8;
}
.took {
  text-align: right;
  font-size: 0.92rem;
}
.state {
  font-size: 0.92rem;
  color: var(--measured);
  font-weight: 600;
}
.rest {
  padding: 0 0 4px 2.8rem;
  font-size: 0.92rem;
}
.bad {
  margin: 0 0 4px 2.8rem;
  border-left: 6px double var(--cut);
  padding-left: 8px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1.3rem;
}
.on {
  color: inherit;
}
a.on {
  font-weight: 600;
}
.do,
.wants {
  padding-left: 1.2rem;
}
.wants .met {
  opacity: 0.75;
  list-style: '✓ ';
}
.care {
  border-left: 6px double var(--caution);
  padding-left: 8px;
}
.lesson {
  border-left: 6px double var(--measured);
  padding-left: 8px;
}
hr {
  width: 100%;
  border: 0;
  border-top: 1px solid var(--line);
  margin: 0.2rem 0;
}
.small {
  font-size: 0.88rem;
}
@media (max-width: 1100px) {
  .station {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 600px) {
  .pick {
    grid-template-columns: 1.6rem minmax(0, 1fr) auto;
    min-height: 48px;
  }
  .took {
    display: none;
  }
  .panel {
    order: 1;
    border-top: 1.5px solid var(--ink);
  }
}
</style>
