<script setup lang="ts">
import { useIntervalFn, useWakeLock } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'

import type { Sitting } from '../api/types'
import { useKey } from '../keys'
import { usePiece } from '../piece/store'
import { keepRun, keptRun, type Run } from './glueRun'
import { count } from './long'
import { useBuild } from './store'

/** The clock of a glue-up: which joint, how long the glue still stays open, what can be saved. */
const props = defineProps<{
  /** What is glued in this sitting. */
  sitting: Sitting
  /** Which sitting it is, from 0. */
  number: number
  /** Whether it is gone through without glue. */
  dry: boolean
  /** Minutes the glue stays open today; 0 for none. */
  openMin: number
  /** What can be saved when it is stopped. */
  saved: string
}>()
const emit = defineEmits<{ /** It is over, or left. */ over: [] }>()
const store = usePiece()
const build = useBuild()
const had = keptRun(store.id)
const run = ref<Run>(
  had?.sitting === props.number && had.dry === props.dry && had.copy === build.copy
    ? had
    : { sitting: props.number, copy: build.copy, dry: props.dry, begun: 0, closed: [] },
)
const stopping = ref(false)
const awake = useWakeLock()
const root = ref<HTMLElement>()
onMounted(() => {
  root.value?.querySelector<HTMLElement>('[data-begin], [data-home]')?.focus()
  if (awake.isSupported.value) void awake.request('screen').catch(() => undefined)
})
const now = ref(Date.now())
useIntervalFn(() => (now.value = Date.now()), 250)

const joints = computed(() => props.sitting.stages.flatMap((stage) => stage.joints))
/** The stage that the next joint belongs to. */
const stage = computed(() => {
  let left = run.value.closed.length
  for (const one of props.sitting.stages) {
    if (left < one.joints.length) return one
    left -= one.joints.length
  }
  return props.sitting.stages.at(-1)
})
const next = computed(() => joints.value[run.value.closed.length])
const seconds = computed(() => (run.value.begun ? (now.value - run.value.begun) / 1000 : 0))
const left = computed(() => props.openMin * 60 - seconds.value)
const soon = computed(
  () => props.openMin > 0 && run.value.begun > 0 && left.value < props.openMin * 15,
)
const over = computed(() => props.openMin > 0 && run.value.begun > 0 && left.value <= 0)

/** Called out, for nobody looks at a screen with glue on both hands: once when a quarter is left, twice when
 * nothing is. */
let sounds: AudioContext | null = null
function call(times: number): void {
  try {
    sounds ??= new AudioContext()
    for (let k = 0; k < times; k += 1) {
      const [tone, loud] = [sounds.createOscillator(), sounds.createGain()]
      loud.gain.value = 0.25
      tone.frequency.value = 660
      tone.connect(loud).connect(sounds.destination)
      tone.start(sounds.currentTime + k * 0.5)
      tone.stop(sounds.currentTime + k * 0.5 + 0.3)
    }
  } catch {
    // A machine without sound: the colour says it.
  }
}
watch(soon, (called) => called && call(1))
watch(over, (called) => called && call(2))

function keep(change: Partial<Run>): void {
  run.value = { ...run.value, ...change }
  keepRun(store.id, run.value)
}
async function begin(): Promise<void> {
  now.value = Date.now()
  keep({ begun: now.value, closed: [] })
  await nextTick()
  root.value?.querySelector<HTMLElement>('[data-home]')?.focus()
}
function close(how: 'home' | 'gap' | 'short'): void {
  if (!run.value.begun || !next.value) return
  keep({ closed: [...run.value.closed, how] })
  if (run.value.closed.length === joints.value.length) end(false)
}
function back(): void {
  keep({ closed: run.value.closed.slice(0, -1) })
}
function end(stopped: boolean): void {
  build.did({
    what: 'glued',
    body: {
      steps: props.sitting.stages.map((one) => one.step),
      dry: props.dry,
      seconds: Math.max(0, (Date.now() - run.value.begun) / 1000),
      joints: joints.value.map((name, k) => ({ name, outcome: run.value.closed[k] ?? 'open' })),
      stopped,
      note: '',
      copy_number: build.copy,
    },
  })
  leave()
}
function leave(): void {
  keepRun(store.id, null)
  emit('over')
}
/** A button of the run is pressed as any other; whatever lies behind it is not. */
const hands = (event: KeyboardEvent): boolean =>
  !(event.target as HTMLElement).matches('[data-run] button')
const home = () => (run.value.begun ? close('home') : begin())
useKey('space', home, hands)
useKey('enter', home, hands)
useKey(
  'esc',
  () => (stopping.value = !stopping.value),
  () => true,
)
</script>

<template>
  <div
    ref="root"
    class="run"
    role="dialog"
    aria-modal="true"
    :aria-label="dry ? 'Rehearsal' : 'Glue-up'"
    data-run
  >
    <header>
      <b>{{ dry ? 'Dry, to learn the way' : 'In earnest' }}</b>
      <span>{{ stage?.title }}</span>
    </header>
    <p class="left" :class="{ soon, over }" role="timer" data-run-left>
      <template v-if="!run.begun">{{ openMin ? count(openMin * 60) : 'no hurry' }}</template>
      <template v-else-if="!openMin">{{ count(seconds) }}</template>
      <template v-else-if="over">{{ count(-left) }} over</template>
      <template v-else>{{ count(left) }} left</template>
    </p>
    <p class="what" role="status" data-run-next>
      <template v-if="!run.begun">
        {{ joints.length }} joints. Begin with the first glue on the wood.
      </template>
      <template v-else-if="next">
        {{ run.closed.length + 1 }} of {{ joints.length }}: <b>{{ next }}</b>
      </template>
    </p>
    <p v-if="over && !dry" class="care" data-run-over>
      The glue does not stay open any longer. {{ saved }}
    </p>
    <ol class="lines">
      <li v-for="line in [...(stage?.steps ?? []), ...(stage?.watch ?? [])]" :key="line">
        {{ line }}
      </li>
    </ol>
    <p v-if="stage?.blocks.length" class="blocks">
      {{ stage.blocks.map((block) => `${block.slope.text} ${block.where}`).join('; ') }}
    </p>
    <footer v-if="!stopping">
      <button v-if="!run.begun" type="button" class="big done" data-begin @click="begin">
        begin
      </button>
      <template v-else>
        <button type="button" class="big" :disabled="!run.closed.length" @click="back">back</button>
        <button type="button" class="big" data-gap @click="close('gap')">closed with a gap</button>
        <button type="button" class="big" data-short @click="close('short')">short of home</button>
        <button type="button" class="big done" data-home @click="close('home')">home</button>
      </template>
      <button type="button" class="big" data-stop @click="run.begun ? (stopping = true) : leave()">
        {{ run.begun ? 'stop' : 'leave' }}
      </button>
    </footer>
    <footer v-else class="stop" data-stopping>
      <p>
        <b>{{ run.closed.length }} of {{ joints.length }} closed.</b>
        {{ dry ? 'Nothing is lost.' : saved }}
      </p>
      <button type="button" class="big" data-go-on @click="stopping = false">go on</button>
      <button type="button" class="big done" data-stop-it @click="end(true)">stop here</button>
    </footer>
  </div>
</template>

<style scoped>
.run {
  position: fixed;
  inset: 0;
  z-index: 20;
  background: var(--sheet);
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  padding: 1rem 1.5rem;
  overflow-y: auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.5rem;
  font-size: 1.3rem;
}
.left {
  font-size: 7rem;
  line-height: 1;
  font-weight: 750;
  letter-spacing: -0.02em;
}
.soon {
  color: var(--caution);
}
.over {
  color: var(--cut);
}
.what {
  font-size: 2.2rem;
  line-height: 1.2;
}
.lines {
  font-size: 1.2rem;
  padding-left: 1.4rem;
  flex: 1;
}
.blocks {
  font-size: 1.15rem;
}
.care {
  border-left: 8px double var(--caution);
  padding-left: 10px;
  font-size: 1.15rem;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}
footer p {
  flex: 1 1 20rem;
  font-size: 1.15rem;
}
.big {
  font: inherit;
  font-size: 1.4rem;
  font-weight: 650;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  min-height: 72px;
  padding: 0 1.3rem;
  cursor: pointer;
}
.big:disabled {
  opacity: 0.5;
}
.done {
  flex: 1 1 10rem;
  background: var(--ink);
  color: var(--paper);
}
@media (max-width: 600px) {
  .left {
    font-size: 4.5rem;
  }
  .what {
    font-size: 1.5rem;
  }
}
</style>
