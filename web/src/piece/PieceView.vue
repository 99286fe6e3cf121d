<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { whyAway } from '../api/client'
import BoringStation from '../stations/boring/BoringStation.vue'
import LegsStation from '../stations/legs/LegsStation.vue'
import LevelStation from '../stations/level/LevelStation.vue'
import StanceStation from '../stations/stance/StanceStation.vue'
import StretchersStation from '../stations/stretchers/StretchersStation.vue'
import TopStation from '../stations/top/TopStation.vue'
import RevisionsSheet from './RevisionsSheet.vue'
import StoryStick from './StoryStick.vue'
import { type StationName, usePiece } from './store'

const props = defineProps<{
  /** Id of the piece. */
  id: string
  /** The station shown; the first where none is named. */
  station?: string
}>()
const store = usePiece()
const revisions = ref(false)

watch(
  () => props.id,
  (id) => void store.open(id),
  { immediate: true },
)
watch(
  () => props.station,
  (name) => store.show((name || 'stance') as StationName),
  { immediate: true },
)

const said = computed(
  () =>
    ({
      loading: 'opening',
      saved: 'saved',
      saving: 'saving',
      away: `${whyAway.value || 'workshop away'}: kept here, sent again by itself`,
      conflict: 'changed elsewhere',
      missing: 'not there',
      unsaved: 'not saved: kept in this browser',
    })[store.status],
)
const general = computed(
  () => store.faults[''] ?? store.faults['supports'] ?? store.faults['members'],
)
/** It opened, but as it stands nothing can be worked out of it: the form alone, to mend it. */
const stuck = computed(() => !store.plan && Object.keys(store.faults).length > 0)
const next = computed(() => store.plan?.stations.find((s) => s.answered < s.proofs))

function rename(event: Event): void {
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
    <div class="head">
      <input
        class="title"
        :value="store.piece.name"
        aria-label="Name of the piece"
        maxlength="120"
        data-field="name"
        @change="rename"
      />
      <span v-if="store.faults['name']" class="wrong" role="alert">{{
        store.faults['name'].do
      }}</span>
      <span class="status quiet" role="status" :data-status="store.status">{{ said }}</span>
      <button class="plain word" type="button" :disabled="!store.canUndo" @click="store.undo">
        undo
      </button>
      <button class="plain word" type="button" :disabled="!store.canRedo" @click="store.redo">
        redo
      </button>
      <button class="plain word" type="button" @click="revisions = true">earlier states</button>
      <RouterLink v-if="next" class="on" :to="`/piece/${id}/${next.name}`">
        carry on: {{ next.title }}
      </RouterLink>
    </div>
    <StoryStick
      v-if="store.plan"
      :stations="store.plan.stations"
      :at="station || 'stance'"
      :piece="id"
    />
    <div v-if="store.status === 'conflict'" class="band" role="alert">
      <p>
        This piece was saved elsewhere after you opened it here (revision
        {{ store.theirs?.revision }}). Both are kept.
      </p>
      <v-btn size="small" @click="store.keepMine">Keep mine on top</v-btn>
      <v-btn size="small" @click="store.takeTheirs">Take the other one</v-btn>
    </div>
    <div v-if="stuck" class="band" role="alert">
      <p>
        <b>This piece cannot be worked out as it stands.</b> {{ general?.allowed }}
        {{ general?.do }} Mend it here, go back to an earlier state, or take its
        <a class="on" :href="`/api/pieces/${id}/file`" download>file</a> out.
      </p>
    </div>
    <div v-else-if="general" class="band" role="alert">
      <p>{{ general.allowed }} {{ general.do }}</p>
      <v-btn size="small" @click="store.faults = {}">Put it away</v-btn>
    </div>
    <StanceStation v-if="!store.plan" />
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
  gap: 1.1rem;
  padding: 0.35rem 1.25rem;
}
.title {
  font: inherit;
  font-size: 1.25rem;
  font-weight: 650;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 1px dashed transparent;
  width: 24rem;
  max-width: 45vw;
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
@media (max-width: 900px) {
  .piece {
    height: auto;
  }
  .head {
    flex-wrap: wrap;
  }
}
</style>
