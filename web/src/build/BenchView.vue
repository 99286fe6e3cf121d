<script setup lang="ts">
import { useEventListener, useIntervalFn, useWakeLock } from '@vueuse/core'
import { computed, onMounted, onUnmounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import type { BuildStep } from '../api/types'
import Drawing from '../drawing/Drawing.vue'
import Choice from '../fields/Choice.vue'
import { typing, useKey } from '../keys'
import { type StationName, usePiece } from '../piece/store'
import ProofList from '../stations/ProofList.vue'
import { usePickedTool } from '../stations/tool'
import WhichWay from '../stations/WhichWay.vue'
import BenchSetting from './BenchSetting.vue'
import { count, when } from './long'
import NoteSheet from './NoteSheet.vue'
import PhotoButton from './PhotoButton.vue'
import { useBuild } from './store'
import WrongSheet from './WrongSheet.vue'

/** One step at a time, to be read from two metres and pressed with gloves. */
const props = defineProps<{
  /** Id of the piece. */
  id: string
  /** Key of the step; the one to go on with where none is named. */
  which?: string
}>()
const store = usePiece()
const build = useBuild()
const router = useRouter()
const wrong = ref(false)
const noting = ref(false)

watch(
  () => props.id,
  (id) => {
    if (store.id !== id) void store.open(id)
    void build.open(id, store.copy)
  },
  { immediate: true },
)
// Opened without a step: the one to go on with, on the piece that is at it where several are made.
watch(
  () => build.build,
  (got) => {
    if (got && !props.which && got.next && got.next_copy !== build.copy)
      void turnCopy(got.next_copy)
  },
)
// Everything of a station at once: at the bench nothing may have to be fetched with glue on the hands.
store.wholly(true)
onUnmounted(() => store.wholly(false))
/** Kept awake while a step is looked at: hands are full. */
const awake = useWakeLock()
onMounted(() => {
  if (awake.isSupported.value) void awake.request('screen').catch(() => undefined)
})
useEventListener(document, 'visibilitychange', () => {
  if (document.visibilityState !== 'visible') return
  void build.look()
  void store.catchUp()
})
// Another device may stand at the same bench.
useIntervalFn(() => void build.look(), 30_000)

/** The step turned to: at once, for the address comes a moment after the key that asked for it. */
const turned = ref('')
watch(
  () => props.which,
  () => (turned.value = ''),
)
const key = computed(() => turned.value || (props.which ?? build.next ?? ''))
const at = computed(() => build.steps.findIndex((one) => one.key === key.value))
const step = computed(() => build.steps[at.value])
const place = (one: BuildStep | undefined): string =>
  `/piece/${props.id}/bench/${encodeURIComponent(one?.key ?? '')}`
async function turnTo(to: BuildStep | undefined): Promise<void> {
  if (!to) return
  turned.value = to.key
  await router.replace(place(to))
}
const go = (by: number): Promise<void> => turnTo(build.steps[at.value + by])

watch(
  () => step.value?.station,
  (station) => store.show((station || 'stance') as StationName),
  { immediate: true },
)
const here = computed(() =>
  store.turned === (step.value?.station || 'stance') ? store.plan : null,
)
const cards = computed(() =>
  (here.value?.works ?? []).filter((card) => step.value?.cards.includes(card.id)),
)
/** A step that was merged has cards of several works: one work is looked at at a time. */
const works = computed(() => [...new Map(cards.value.map((c) => [c.work, c.title])).entries()])
const chosen = ref('')
const work = computed(() =>
  works.value.some(([one]) => one === chosen.value) ? chosen.value : (works.value[0]?.[0] ?? ''),
)
const mine = computed(() => cards.value.filter((card) => card.work === work.value))
const { picked, card, choose } = usePickedTool(
  mine,
  computed(() => step.value?.station ?? ''),
  work,
)
const proofs = computed(() => {
  const asked = new Set(here.value?.proofs.map((one) => one.id))
  return (step.value?.proofs ?? []).filter((id) => asked.has(id))
})
/** What the seat is marked out by, told step by step. */
const marking = computed(() =>
  (here.value?.layout.steps ?? []).filter((one) => one.operation === step.value?.operation),
)
const view = computed(() => {
  const drawn = store.drawings
  if (!drawn || !here.value) return undefined
  if (card.value) return drawn.pictures[card.value.id]
  const last = marking.value.at(-1)
  // As it looks when this marking-out is done, not when another one follows it.
  const named = last && `step.${here.value.layout.steps.indexOf(last) + 1}`
  return last ? drawn.layout.find((one) => one.name === named) : drawn.piece[0]
})
/** Whether something that is asked here has no answer yet. */
const unread = computed(() =>
  proofs.value.some((id) => !here.value?.proofs.find((one) => one.id === id)?.answer),
)
const missing = computed(() => step.value?.wants.filter((want) => !want.done) ?? [])
const firstWhy = computed(() => {
  const [first] = missing.value
  return first ? `${first.why[0]?.toUpperCase() ?? ''}${first.why.slice(1)}` : ''
})
const several = computed(() => (build.build?.make ?? 1) > 1)

async function turnCopy(to: number): Promise<void> {
  store.turnToCopy(to)
  await build.open(props.id, to)
}

/** Done: the next step, or the same one on the next piece where several are made. */
async function done(): Promise<void> {
  const one = step.value
  if (!one) return
  if (one.state === 'done') {
    await go(1)
    return
  }
  const stood = at.value
  build.tick(one)
  if (several.value) {
    await build.settled()
    const make = build.build?.make ?? 1
    if ((build.step(one.key)?.copies_done ?? make) < make) {
      const here = build.build?.next === one.key
      await turnCopy(here ? (build.build?.next_copy ?? 1) : (build.copy % make) + 1)
      return
    }
  }
  await turnTo(build.steps[stood + 1])
}

/** The running count, told every second. */
const tick = ref(0)
useIntervalFn(() => (tick.value += 1), 1000)
const counted = computed(() => {
  void tick.value
  const one = step.value
  if (!one) return 0
  return one.seconds + (one.since ? (Date.now() - new Date(one.since).getTime()) / 1000 : 0)
})
const running = computed(() => !!step.value?.since)

/** At the bench, and nothing asks for an answer. */
const atBench = (event: KeyboardEvent): boolean =>
  !typing(event) && document.querySelector('.v-overlay--active') === null
const bench = (key: string, act: () => unknown): void => useKey(key, act, atBench)
bench('right', () => go(1))
bench('left', () => go(-1))
bench('d', done)
bench('w', () => (wrong.value = true))
bench('n', () => (noting.value = true))
bench('t', () => step.value && build.time(step.value, !running.value))
bench('esc', () => router.push(`/piece/${props.id}/work`))
</script>

<template>
  <main class="bench">
    <header>
      <RouterLink class="on" :to="`/piece/${id}/work`">leave the bench</RouterLink>
      <span class="name">{{ build.build?.name }}</span>
      <label v-if="several" class="which">
        no.
        <select
          :value="build.copy"
          aria-label="Which of them is worked on"
          data-bench-copy
          @change="turnCopy(Number(($event.target as HTMLSelectElement).value))"
        >
          <option v-for="k in build.build?.make" :key="k" :value="k">{{ k }}</option>
        </select>
        of {{ build.build?.make }}
      </label>
      <span v-if="build.away || build.deeds.length" class="kept" role="status" data-bench-away>
        {{ build.away ? 'workshop away: kept here, told by itself' : 'telling the workshop' }}
      </span>
      <span v-if="at >= 0" class="place">step {{ at + 1 }} of {{ build.steps.length }}</span>
      <span class="bar" aria-hidden="true">
        <i
          v-for="one in build.steps"
          :key="one.key"
          :class="[one.state, { here: one.key === key }]"
        />
      </span>
    </header>
    <p v-if="build.wrong" class="note" role="alert">{{ build.wrong }}</p>
    <p v-else-if="!build.build" class="note" role="status">
      {{ build.away ? 'The workshop does not answer. Trying again.' : 'Laying out the bench.' }}
    </p>
    <p v-else-if="!step" class="note" role="status" data-bench-over>
      {{ which ? 'This step is no more.' : 'Everything is done.' }}
      <RouterLink class="on" :to="`/piece/${id}/work`">To the order of work</RouterLink>
    </p>
    <template v-else>
      <section class="work" :data-bench-step="step.key">
        <h1>{{ step.title }}</h1>
        <div class="see">
          <BenchSetting v-if="card" :card="card" />
          <div class="picture"><Drawing v-if="view" :view="view" :letter="15" /></div>
          <Choice
            v-if="mine.length > 1"
            label="With"
            :items="mine.map((one) => ({ value: one.by, title: one.tool }))"
            :value="picked?.by ?? ''"
            @choose="choose"
          />
        </div>
        <div class="tell">
          <Choice
            v-if="works.length > 1"
            label="The work"
            :items="works.map(([value, title]) => ({ value, title }))"
            :value="work"
            @choose="chosen = $event"
          />
          <p v-if="step.state === 'waiting'" class="hold" role="status" data-bench-waits>
            <b>Wait until {{ when(step.until ?? '') }}</b> for {{ step.for_what }}.
          </p>
          <p v-if="missing.length" class="hold" data-bench-wants>
            Not done yet: <b>{{ missing.map((want) => want.title).join(', ') }}</b>. {{ firstWhy }}.
          </p>
          <p v-for="lesson in step.lessons" :key="lesson.at" class="lesson" data-lesson>
            <b>{{ lesson.by ?? 'Somebody' }}{{ lesson.piece ? `, ${lesson.piece}` : '' }}:</b>
            {{ lesson.says }}
          </p>
          <p v-if="card && !card.in_reach" class="hold">
            <b>Past its reach.</b> {{ card.reach_note }}
          </p>
          <WhichWay v-if="card" class="way" :lines="card.which_way" />
          <ol v-if="marking.length" class="do">
            <li v-for="one in marking" :key="one.title">
              <b>{{ one.title }}.</b> <span class="lines">{{ one.words }}</span>
            </li>
          </ol>
          <ul v-else class="do">
            <li v-for="line in [...(card?.steps ?? []), ...step.do]" :key="line">{{ line }}</li>
          </ul>
          <ProofList v-if="proofs.length" class="proofs" :ids="proofs" :checks="[]" />
          <p v-if="step.lay_out.length" class="out">At hand: {{ step.lay_out.join('; ') }}.</p>
          <p v-for="care in card ? card.cautions : []" :key="care" class="care">{{ care }}</p>
          <p v-if="step.caution && !card?.cautions.length" class="care">{{ step.caution }}</p>
          <p v-if="step.wait" class="out">
            Afterwards it rests {{ step.wait.least_h
            }}{{ step.wait.most_h > step.wait.least_h ? ` to ${step.wait.most_h}` : '' }} h for
            {{ step.wait.for_what }}.
          </p>
        </div>
      </section>
      <p v-if="build.said" class="said" role="status" data-bench-said>{{ build.said }}</p>
      <div v-if="step.units.length > 1" class="units" role="group" aria-label="What of it is done">
        <button
          v-for="unit in step.units"
          :key="`${unit.key} ${unit.of}`"
          type="button"
          class="unit"
          :aria-pressed="unit.done"
          :data-unit="unit.of"
          @click="unit.done ? build.untick(step, [unit]) : build.tick(step, [unit])"
        >
          {{ unit.done ? '✓ ' : '' }}{{ unit.name }}
        </button>
      </div>
      <footer>
        <button type="button" class="big thin" :disabled="at === 0" @click="go(-1)">back</button>
        <button type="button" class="big" data-wrong @click="wrong = true">went wrong</button>
        <button type="button" class="big thin" data-note @click="noting = true">note</button>
        <PhotoButton :step="step.key" />
        <button
          type="button"
          class="big thin figures"
          :aria-label="running ? 'stop the timer' : 'start the timer'"
          :aria-pressed="running"
          data-timer
          @click="build.time(step, !running)"
        >
          {{ running ? '■' : '▶' }} {{ count(counted) }}
        </button>
        <button
          v-if="step.state === 'done'"
          type="button"
          class="big thin"
          data-undone
          @click="build.untick(step)"
        >
          not done
        </button>
        <button type="button" class="big done" data-done @click="done">
          {{ step.state === 'done' ? 'next' : unread ? 'done, not read' : 'done' }}
        </button>
      </footer>
      <WrongSheet v-if="wrong" v-model="wrong" :step="step" />
      <NoteSheet v-if="noting" v-model="noting" :step="step" />
    </template>
  </main>
</template>

<style scoped>
.bench {
  height: 100vh;
  display: flex;
  flex-direction: column;
  background: var(--paper);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 1.4rem;
  padding: 0.5rem 1.25rem;
  border-bottom: 1.5px solid var(--ink);
  font-size: 1.1rem;
}
.on {
  color: inherit;
  font-weight: 600;
  line-height: 44px;
}
.name {
  font-weight: 650;
}
.place {
  margin-left: auto;
}
.kept {
  border-left: 6px solid var(--measured);
  padding-left: 8px;
}
.bar {
  flex-basis: 100%;
  display: flex;
  gap: 3px;
  height: 10px;
}
.bar i {
  flex: 1;
  border: 1px solid var(--ink);
}
.bar .done {
  background: var(--measured);
}
.bar .begun {
  background: linear-gradient(to top, var(--measured) 50%, transparent 50%);
}
.bar .waiting {
  border-style: dashed;
}
.bar .here {
  outline: 2px solid var(--cut);
  outline-offset: 1px;
}
.work {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) minmax(0, 1.15fr);
  grid-template-areas: 'see title' 'see tell';
}
.see {
  grid-area: see;
  min-height: 0;
  padding: 0.7rem 1.25rem;
  display: flex;
  flex-direction: column;
  gap: 0.4rem;
}
.picture {
  flex: 1;
  min-height: 120px;
}
.picture :deep(svg) {
  width: 100%;
  height: 100%;
}
.tell {
  grid-area: tell;
  min-height: 0;
  overflow-y: auto;
  padding: 0.7rem 1.25rem;
  border-left: 1.5px solid var(--ink);
  background: var(--sheet);
  font-size: 1.3rem;
  line-height: 1.35;
  display: grid;
  gap: 0.6rem;
  align-content: start;
}
h1 {
  grid-area: title;
  padding: 0.7rem 1.25rem 0;
  border-left: 1.5px solid var(--ink);
  background: var(--sheet);
  font-size: 1.9rem;
  line-height: 1.15;
  font-weight: 700;
}
.way {
  font-weight: 650;
}
.do {
  padding-left: 1.3rem;
  display: grid;
  gap: 0.35rem;
}
.lines {
  white-space: pre-line;
}
.hold {
  border-left: 8px solid var(--caution);
  padding-left: 10px;
}
.lesson {
  border-left: 8px double var(--measured);
  padding-left: 10px;
}
.care {
  border-left: 6px double var(--caution);
  padding-left: 10px;
  font-size: 1.1rem;
}
.out {
  font-size: 1.1rem;
}
.units {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  padding: 0.5rem 1.25rem;
  border-top: 1px solid var(--line);
}
.unit {
  font: inherit;
  font-size: 1.15rem;
  color: inherit;
  background: none;
  border: 1.5px solid var(--ink);
  padding: 0 1rem;
  min-height: 48px;
  cursor: pointer;
}
.unit[aria-pressed='true'] {
  border-color: var(--measured);
  color: var(--measured);
  font-weight: 650;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  padding: 0.6rem 1.25rem;
  border-top: 1.5px solid var(--ink);
}
footer :deep(.big) {
  font: inherit;
  font-size: 1.35rem;
  font-weight: 650;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  min-height: 64px;
  padding: 0 1.2rem;
  cursor: pointer;
}
footer :deep(.thin) {
  font-weight: 500;
}
footer :deep(.big:disabled) {
  opacity: 0.5;
}
footer .done {
  flex: 1 1 9rem;
  background: var(--ink);
  color: var(--paper);
}
footer [aria-pressed='true'] {
  border-color: var(--measured);
  color: var(--measured);
}
footer .figures {
  min-width: 8.5rem;
}
.said {
  padding: 0.4rem 1.25rem;
  border-left: 8px solid var(--measured);
  font-size: 1.15rem;
}
.note {
  padding: 16vh 2rem;
  text-align: center;
  font-size: 1.3rem;
}
.which select {
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  min-height: 44px;
  padding: 0 10px;
}
.proofs :deep(.v-field__input) {
  font-size: 1.4rem;
  min-height: 56px;
}
@media (max-width: 900px) {
  .bench {
    height: auto;
    min-height: 100vh;
  }
  .work {
    grid-template: auto auto auto / minmax(0, 1fr);
    grid-template-areas: 'title' 'see' 'tell';
  }
  h1 {
    border-left: 0;
    padding-bottom: 0.5rem;
  }
  .tell {
    border-left: 0;
    border-top: 1.5px solid var(--ink);
  }
  .picture {
    height: 240px;
    flex: none;
  }
  footer {
    position: sticky;
    bottom: 0;
    background: var(--paper);
  }
}
@media (max-width: 600px) {
  header,
  .see,
  .tell,
  footer {
    padding-left: 0.75rem;
    padding-right: 0.75rem;
  }
  footer :deep(.big) {
    font-size: 1.1rem;
    min-height: 56px;
    padding: 0 0.8rem;
  }
}
</style>
