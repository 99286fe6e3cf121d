<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { whyAway } from '../api/client'
import { inWhole } from '../said'
import ClassStation from '../build/ClassStation.vue'
import FinishStation from '../build/FinishStation.vue'
import GlueStation from '../build/GlueStation.vue'
import LogStation from '../build/LogStation.vue'
import WorkStation from '../build/WorkStation.vue'
import BoringStation from '../stations/boring/BoringStation.vue'
import LegsStation from '../stations/legs/LegsStation.vue'
import LevelStation from '../stations/level/LevelStation.vue'
import StanceStation from '../stations/stance/StanceStation.vue'
import PaperStation from '../paper/PaperStation.vue'
import WoodStation from '../timber/WoodStation.vue'
import StretchersStation from '../stations/stretchers/StretchersStation.vue'
import TopStation from '../stations/top/TopStation.vue'
import { useBuild } from '../build/store'
import RevisionsSheet from './RevisionsSheet.vue'
import StoryStick from './StoryStick.vue'
import { type StationName, usePiece } from './store'
import { mostOf } from '../fields/published'

const props = defineProps<{
  /** Id of the piece. */
  id: string
  /** The station shown; the first where none is named. */
  station?: string
}>()
const store = usePiece()
const build = useBuild()
/** Stations with calls of their own, that show nothing of the plan. */
const OWN = ['work', 'class', 'glueup', 'finish', 'log', 'wood', 'paper']
const revisions = ref(false)
/** On a phone: whether all that can be done is shown in the head. */
const more = ref(false)

watch(
  () => props.id,
  (id) => void store.open(id),
  { immediate: true },
)
// What is ticked fills the stick; it is asked for when the piece stands drawn.
watch(
  () => store.plan !== null && !store.rehearsal,
  (drawn) => drawn && build.id !== store.id && void build.open(store.id, store.copy),
  { immediate: true },
)
watch(
  () => props.station,
  // The order of work and the log have calls of their own: they show nothing of the plan.
  (name) => store.show((OWN.includes(name ?? '') ? 'stance' : name || 'stance') as StationName),
  { immediate: true },
)

/** The plan's own: a drag is told of none, so that they stay the very same. */
const stations = computed(() => store.plan?.stations)
/** The notches of the stick: the plan's stations with the build's own, which fill as steps are ticked. */
const notches = computed(() => {
  const made = [...(stations.value ?? [])]
  const ticked = (of: string[]): { proofs: number; answered: number; off: number } => {
    const mine = build.id === store.id ? build.steps.filter((s) => of.includes(s.operation)) : []
    const answered = mine.filter((one) => one.state === 'done').length
    return { proofs: mine.length, answered, off: 0 }
  }
  made.splice(1, 0, { name: 'wood', title: 'Wood', ...ticked(['ready', 'glue_boards']) })
  const level = made.findIndex((one) => one.name === 'level')
  const before = level < 0 ? made.length : level
  made.splice(before, 0, { name: 'glueup', title: 'Glue-up', ...ticked(['glue', 'wedge']) })
  made.push({ name: 'finish', title: 'Finish', ...ticked(['finish', 'prefinish']) })
  made.push({ name: 'log', title: 'Log', proofs: 0, answered: 0, off: 0 })
  return made
})

const said = computed(
  () =>
    ({
      loading: 'opening',
      saved: 'saved',
      saving: 'saving',
      away: `${whyAway.value || 'workshop away'}: kept here, sent again by itself`,
      conflict: 'changed elsewhere: choose below',
      missing: 'not there',
      unsaved: 'not saved: kept in this browser',
    })[store.status],
)
const general = computed(
  () => store.faults[''] ?? store.faults['supports'] ?? store.faults['members'],
)
/** It opened, but as it stands nothing can be worked out of it: the form alone, to mend it. */
const stuck = computed(() => !store.plan && Object.keys(store.faults).length > 0)
/** The station at which something was just taken back, where it is another than the one shown. */
const elsewhere = computed(() => {
  const at = store.tookBack?.step.station
  return at === store.station ? undefined : store.plan?.stations.find((s) => s.name === at)
})
useEventListener(document, 'visibilitychange', () => {
  if (document.visibilityState === 'visible') void store.catchUp()
})
const next = computed(() => (store.finished ? null : store.plan?.next))

/** How many of it are made: each is read by itself. */
const make = computed(() => store.piece?.make ?? 1)

/** The name as it is being typed: an answer that comes meanwhile does not take it away. */
const naming = ref<string | null>(null)
function rename(event: Event): void {
  naming.value = null
  store.set('name', (event.target as HTMLInputElement).value)
}
</script>

<template>
  <main v-if="store.status === 'missing'" class="gone">
    <h1>This piece is not on the rack</h1>
    <p>
      It was taken off, or the address is not whole.
      <RouterLink to="/">Back to the rack</RouterLink>
    </p>
  </main>
  <main v-else-if="store.piece && (store.plan || stuck)" class="piece">
    <div class="head" :class="{ more }">
      <input
        class="title"
        :value="naming ?? store.piece.name"
        aria-label="Name of the piece"
        :maxlength="mostOf('Piece', 'name')"
        data-field="name"
        @input="naming = ($event.target as HTMLInputElement).value"
        @change="rename"
        @keydown.enter="($event.target as HTMLElement).blur()"
        @keydown.esc="($event.target as HTMLElement).blur()"
      />
      <span v-if="store.faults['name']" class="wrong" role="alert">{{
        store.faults['name'].do
      }}</span>
      <label v-if="make > 1" class="which" data-which>
        <span>no.</span>
        <select
          :value="store.copy"
          aria-label="Which of them is read"
          @change="store.turnToCopy(Number(($event.target as HTMLSelectElement).value))"
        >
          <option v-for="k in make" :key="k" :value="k">{{ k }}</option>
        </select>
        <span>of {{ make }}</span>
      </label>
      <span class="status quiet" role="status" :data-status="store.status">{{ said }}</span>
      <button
        class="plain word step"
        type="button"
        :disabled="!store.canUndo"
        :title="store.last?.says"
        @click="store.undo"
      >
        undo<span v-if="store.last" class="says">&nbsp;{{ store.last.says }}</span>
      </button>
      <button
        class="plain word menu"
        type="button"
        :aria-expanded="more"
        data-head-more
        @click="more = !more"
      >
        {{ more ? 'less' : 'more' }}
      </button>
      <button
        class="plain word rest"
        type="button"
        :disabled="!store.canRedo"
        :title="store.next?.says"
        @click="store.redo"
      >
        redo
      </button>
      <button class="plain word rest" type="button" @click="revisions = true">
        earlier states
      </button>
      <button
        v-if="store.plan"
        class="plain word rest"
        type="button"
        data-finish
        :title="store.finished ? 'say that it is not finished yet' : 'say that it is finished'"
        @click="store.finish(!store.finished)"
      >
        {{ store.finished ? 'finished' : 'call it finished' }}
      </button>
      <RouterLink
        v-if="store.plan"
        class="on rest"
        :to="`/piece/${id}/work`"
        :aria-current="station === 'work' ? 'page' : undefined"
        data-work-link
      >
        order of work
      </RouterLink>
      <RouterLink v-if="store.plan" class="on rest" :to="`/piece/${id}/bench`" data-bench-link>
        at the bench
      </RouterLink>
      <RouterLink
        v-if="store.plan"
        class="on rest"
        :to="`/piece/${id}/paper`"
        :aria-current="station === 'paper' ? 'page' : undefined"
        data-paper-link
      >
        paper
      </RouterLink>
      <RouterLink v-if="next" class="on rest" :to="`/piece/${id}/${next.name}`">
        carry on: {{ next.title }}
      </RouterLink>
    </div>
    <StoryStick v-if="store.plan" :stations="notches" :at="station || 'stance'" :piece="id" />
    <p v-if="store.tookBack" class="took quiet" role="status" data-took-back>
      {{ store.tookBack.what }}: {{ store.tookBack.step.says }}
      <RouterLink v-if="elsewhere" class="on" :to="`/piece/${id}/${elsewhere.name}`">
        at {{ elsewhere.title }}
      </RouterLink>
    </p>
    <div v-if="store.clashing" class="band" role="alert" data-clashes>
      <div class="clashes">
        <p>
          {{ store.clashing.theirs.saved_by ?? 'Somebody' }} saved another state of this piece
          meanwhile. What only one of you changed is put together; choose here what both did.
        </p>
        <p v-for="clash in store.clashing.clashes" :key="clash.path" :data-clash="clash.path">
          <b>{{ clash.what }}</b>
          <button
            class="plain word"
            type="button"
            :aria-pressed="store.picks[clash.path] === 'mine'"
            @click="store.pick(clash.path, 'mine')"
          >
            keep yours: {{ clash.mine || 'none' }}
          </button>
          <button
            class="plain word"
            type="button"
            :aria-pressed="store.picks[clash.path] === 'theirs'"
            @click="store.pick(clash.path, 'theirs')"
          >
            take the other: {{ clash.theirs || 'none' }}
          </button>
        </p>
      </div>
    </div>
    <div v-else-if="store.meanwhile" class="band calm" role="status" data-meanwhile>
      <p>
        {{ store.meanwhile.by }} changed this piece meanwhile: {{ store.meanwhile.says }}. It stands
        here now, with what you did.
      </p>
      <v-btn size="small" @click="store.meanwhile = null">Put it away</v-btn>
    </div>
    <div v-if="stuck" class="band" role="alert">
      <p>
        <b>This piece cannot be worked out as it stands.</b> {{ general?.said }} Mend it here, go
        back to an earlier state, or take its
        <a class="on" :href="`/api/pieces/${id}/file`" download>file</a> out.
      </p>
    </div>
    <div v-else-if="general" class="band" role="alert">
      <p>{{ inWhole(general) }}</p>
      <v-btn size="small" @click="store.faults = {}">Put it away</v-btn>
    </div>
    <StanceStation v-if="!store.plan" />
    <WorkStation v-else-if="station === 'work'" />
    <GlueStation v-else-if="station === 'glueup'" />
    <FinishStation v-else-if="station === 'finish'" />
    <ClassStation v-else-if="station === 'class'" />
    <WoodStation v-else-if="station === 'wood'" />
    <LogStation v-else-if="station === 'log'" />
    <PaperStation v-else-if="station === 'paper'" />
    <p v-else-if="store.turned !== (station || 'stance')" class="turning quiet" role="status">
      Laying out the {{ station }} station.
    </p>
    <StanceStation v-else-if="(station || 'stance') === 'stance'" />
    <TopStation v-else-if="station === 'top'" />
    <BoringStation v-else-if="station === 'boring' && store.plan.legs.length" />
    <StretchersStation v-else-if="station === 'stretchers'" />
    <LevelStation v-else-if="station === 'level'" />
    <LegsStation v-else />
    <RevisionsSheet v-if="revisions" v-model="revisions" :piece="id" @restore="store.restore" />
  </main>
  <main v-else class="gone" role="status">
    <p>
      {{
        store.status === 'away'
          ? 'The workshop does not answer. Trying again.'
          : 'Fetching the piece.'
      }}
    </p>
  </main>
</template>

<style scoped>
.piece {
  display: flex;
  flex-direction: column;
  height: calc(100vh - 47px);
  min-height: 620px;
}
.head {
  display: flex;
  align-items: baseline;
  gap: 1rem;
  padding: 0.35rem 1.25rem;
}
/* What does not fit beside the rest: the name is typed on, what undo says is cut short. */
.head > .rest,
.which {
  flex: none;
  white-space: nowrap;
}
.title {
  font: inherit;
  font-size: 1.25rem;
  font-weight: 650;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 1px dashed transparent;
  flex: 1 1 12rem;
  width: 12rem;
  min-width: 7rem;
}
.title:hover,
.title:focus {
  border-color: var(--ink);
}
.status {
  margin-right: auto;
  font-size: 0.88rem;
}
button:disabled {
  opacity: 0.62;
  cursor: default;
  text-decoration: none;
}
.on {
  color: inherit;
  font-weight: 600;
}
.step {
  flex: 0 1 auto;
  min-width: 3rem;
  max-width: 24rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.says {
  font-size: 0.84rem;
  opacity: 0.85;
}
.took {
  padding: 0 1.25rem;
  font-size: 0.9rem;
}
.band.calm {
  border-color: var(--measured);
}
.clashes {
  display: grid;
  gap: 0.35rem;
}
.clashes button[aria-pressed='true'] {
  font-weight: 700;
}
.clashes p {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.2rem;
}
.which {
  display: flex;
  gap: 0.4rem;
  align-items: baseline;
}
.which select {
  font: inherit;
  font-weight: 650;
  color: inherit;
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 2px 6px;
  min-height: 28px;
}
.wrong {
  color: var(--cut);
}
.band {
  display: flex;
  gap: 1rem;
  align-items: center;
  padding: 0.5rem 1.25rem;
  border-bottom: 1.5px solid var(--caution);
  border-left: 8px solid var(--caution);
}
.band p {
  flex: 1;
}
.gone {
  padding: 14vh 2rem;
  text-align: center;
  display: grid;
  gap: 1rem;
}
.menu {
  display: none;
}
@media (max-width: 900px) {
  .piece {
    height: auto;
  }
  .head {
    flex-wrap: wrap;
  }
}
@media (max-width: 600px) {
  .head {
    gap: 0 0.9rem;
    padding: 0 0.75rem;
  }
  .title {
    flex: 1 1 6rem;
    width: 6rem;
    font-size: 1.05rem;
  }
  .status {
    flex: 0 1 auto;
    margin: 0;
    max-width: 7rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .says {
    display: none;
  }
  .menu {
    display: inline;
  }
  .head:not(.more) .rest {
    display: none;
  }
}
</style>
