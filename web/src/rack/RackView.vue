<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'

import { api, ask, Away, Refused } from '../api/client'
import type { OffRack, Piece, RackPiece, Start } from '../api/types'
import Drawing from '../drawing/Drawing.vue'
import Choice from '../fields/Choice.vue'
import FigureText from '../fields/FigureText.vue'
import RevisionsSheet from '../piece/RevisionsSheet.vue'
import { inWhole } from '../said'
import { useSession } from '../session/store'
import Sheet from '../Sheet.vue'
import { useDrawings } from './drawings'
import EmptyRack from './EmptyRack.vue'
import InSight from './InSight.vue'
import TakeOut from './TakeOut.vue'

const router = useRouter()
const session = useSession()
const me = computed(() => session.session?.maker ?? null)
const pieces = ref<RackPiece[] | null>(null)
const { drawings, want } = useDrawings()
/** More pieces than this are looked for by name. */
const MANY = 8
const AWAY = 'The workshop does not answer. Trying again.'
const wrong = ref('')
const leaving = ref<RackPiece | null>(null)
/** What was taken off and can be hung up again. */
const off = ref<OffRack[]>([])
const looking = ref(false)
const sought = ref('')
const order = ref('turn')
const ORDERS = [
  { value: 'turn', title: 'changed last' },
  { value: 'name', title: 'name' },
  { value: 'open', title: 'unfinished first' },
]
const found = computed(() => {
  const words = sought.value.toLowerCase().split(' ')
  const those = pieces.value?.filter((one) =>
    words.every((word) => one.name.toLowerCase().includes(word)),
  )
  // As they come they hang by what was changed last.
  if (order.value === 'name') those?.sort((a, b) => a.name.localeCompare(b.name))
  if (order.value === 'open') those?.sort((a, b) => Number(a.finished) - Number(b.finished))
  return those
})
const choosing = ref(false)
/** A piece whose last state cannot be opened, and whether its earlier ones are looked at. */
const mending = ref<RackPiece | null>(null)
const earlier = ref(false)
const starts = ref<Start[]>([])

/** The kinds to start from are fetched when they are first asked for. */
async function openStarts(): Promise<void> {
  choosing.value = true
  if (starts.value.length) return
  try {
    starts.value = (await ask(api.GET('/api/pieces/starts'))) as Start[]
  } catch (error) {
    choosing.value = false
    wrong.value = said(error)
  }
}

function said(error: unknown): string {
  if (error instanceof Refused) return error.problem.detail
  if (error instanceof Away) return 'The workshop does not answer. Try again.'
  throw error
}

onMounted(() => void load())

async function load(): Promise<void> {
  try {
    pieces.value = await ask(api.GET('/api/pieces'))
    off.value = await ask(api.GET('/api/pieces/bin'))
    // What else is said there meanwhile stays.
    if (wrong.value === AWAY) wrong.value = ''
  } catch (error) {
    wrong.value = said(error)
    if (!(error instanceof Away)) return
    wrong.value = AWAY
    setTimeout(() => void load(), 2000)
  }
}

async function begin(given: {
  start: string
  another?: boolean
  document?: Record<string, unknown>
}): Promise<void> {
  try {
    const body = { another: false, ...given }
    const made = await ask(api.POST('/api/pieces', { body }))
    await router.push(`/piece/${made.id}/stance`)
  } catch (error) {
    const fault = error instanceof Refused ? error.problem.faults?.[0] : undefined
    wrong.value = fault ? inWhole(fault) : 'The workshop does not answer. Try again.'
  }
}

/** A finished piece, to see what one looks like. */
async function lookInto(): Promise<void> {
  try {
    const made = await ask(api.POST('/api/pieces/example'))
    await router.push(`/piece/${made.id}/boring`)
  } catch (error) {
    wrong.value = said(error)
  }
}

async function bring(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  try {
    const document = JSON.parse(await file.text()) as Record<string, unknown>
    await begin({ start: 'round_three', document })
  } catch {
    wrong.value = `${file.name} is not a piece file: it is not JSON. Choose another one.`
  }
  input.value = ''
}

async function takeAway(): Promise<void> {
  if (!leaving.value) return
  const path = { id: leaving.value.id }
  leaving.value = null
  try {
    await ask(api.DELETE('/api/pieces/{id}', { params: { path } }))
    await load()
  } catch (error) {
    wrong.value = said(error)
  }
}

/** Another one like it, to be changed: its readings are not its own. */
async function copy(piece: RackPiece): Promise<void> {
  try {
    const path = { id: piece.id }
    const { piece: document } = await ask(api.GET('/api/pieces/{id}', { params: { path } }))
    await begin({ start: 'round_three', another: true, document: document })
  } catch (error) {
    wrong.value = said(error)
  }
}

async function hangAgain(one: OffRack): Promise<void> {
  try {
    await ask(api.POST('/api/pieces/{id}/hang', { params: { path: { id: one.id } } }))
    await load()
    looking.value = off.value.length > 0
  } catch (error) {
    wrong.value = said(error)
  }
}

async function keepIt(piece: RackPiece): Promise<void> {
  const params = { path: { id: piece.id } }
  try {
    await ask(api.PUT('/api/pieces/{id}/kept', { params, body: { kept: !piece.kept } }))
    await load()
  } catch (error) {
    wrong.value = said(error)
  }
}

function mend(piece: RackPiece): void {
  mending.value = piece
  earlier.value = true
}
/** An earlier state is kept again as the last one. */
async function putBack(document: Piece): Promise<void> {
  const piece = mending.value
  if (!piece) return
  const body = { document: document as Record<string, unknown>, based_on: piece.revision }
  try {
    await ask(api.PUT('/api/pieces/{id}', { params: { path: { id: piece.id } }, body }))
    await load()
  } catch (error) {
    wrong.value =
      error instanceof Refused ? error.problem.detail : 'The workshop does not answer. Try again.'
  }
}

/** What a picture was drawn of: another state of the piece, or readings since. */
const state = (piece: RackPiece): string =>
  [piece.revision, piece.next?.name, piece.next?.answered].join(' ')

function stage({ next, finished }: RackPiece): string {
  if (finished) return 'finished'
  return next ? `at ${next.title}, ${next.answered} of ${next.proofs} proved` : 'all proved'
}
</script>

<template>
  <main class="rack">
    <div class="line">
      <h1>The rack</h1>
      <v-btn color="primary" variant="flat" data-new @click="openStarts">New piece</v-btn>
      <label class="word bring">
        bring in a piece file
        <input type="file" accept=".json,application/json" @change="bring" />
      </label>
      <v-text-field
        v-if="(pieces?.length ?? 0) > MANY"
        v-model="sought"
        class="sought"
        label="Find by name"
        autocomplete="off"
        data-find
      />
      <Choice
        v-if="(pieces?.length ?? 0) > MANY"
        label="by"
        :items="ORDERS"
        :value="order"
        @choose="order = $event"
      />
      <button v-if="off.length" class="plain word" type="button" data-off @click="looking = true">
        taken off: {{ off.length }}
      </button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <p v-if="pieces === null && !wrong" role="status">Looking along the rack.</p>
    <EmptyRack v-else-if="pieces?.length === 0" @begin="openStarts" @example="lookInto" />
    <ul v-else class="pieces">
      <li v-for="piece in found" :key="piece.id">
        <component
          :is="piece.readable ? RouterLink : 'div'"
          v-bind="piece.readable ? { to: `/piece/${piece.id}` } : {}"
          class="peg"
          :data-piece="piece.name"
        >
          <InSight
            class="drawn"
            :stamp="state(piece)"
            @seen="piece.drawn && want(piece.id, state(piece))"
          >
            <p v-if="!piece.drawn" class="quiet" data-trouble>{{ piece.trouble }}</p>
            <Drawing v-else-if="drawings[piece.id]" :view="drawings[piece.id]!" />
          </InSight>
          <strong>{{ piece.name }}</strong>
          <span v-if="piece.drawn" class="quiet small"
            >{{ piece.make > 1 ? `${piece.make} of them, ` : ''
            }}<FigureText :text="piece.height?.text ?? ''" /> high, {{ stage(piece)
            }}{{ piece.cautions ? `, ${piece.cautions} to look at` : '' }}</span
          >
          <span v-else-if="piece.readable" class="quiet small">open it to mend it</span>
          <span v-else class="quiet small">go back to an earlier state, or take its file out</span>
        </component>
        <span class="small">
          <button
            v-if="!piece.readable"
            class="plain word"
            type="button"
            :aria-label="`Earlier states of ${piece.name}`"
            @click="mend(piece)"
          >
            earlier states
          </button>
          <TakeOut :piece="piece" />
          <button
            v-if="piece.readable"
            class="plain word"
            type="button"
            :aria-label="`Another like ${piece.name}`"
            @click="copy(piece)"
          >
            another
          </button>
          <button
            v-if="piece.by === me && !session.session?.alone"
            class="plain word"
            type="button"
            :aria-pressed="piece.kept"
            :aria-label="`Only I see ${piece.name}`"
            @click="keepIt(piece)"
          >
            {{ piece.kept ? 'only you see it' : 'keep to yourself' }}
          </button>
          <span v-else-if="piece.by && piece.by !== me" class="quiet">by {{ piece.by }}</span>
          <button
            v-if="piece.may_take"
            class="plain word"
            type="button"
            :aria-label="`Take ${piece.name} off the rack`"
            @click="leaving = piece"
          >
            take off
          </button>
        </span>
      </li>
    </ul>
    <Sheet :model-value="leaving !== null" wide="28rem" @update:model-value="leaving = null">
      <h2>Take {{ leaving?.name }} off the rack?</h2>
      <p>
        Its {{ leaving?.revision }} saved states and its readings go with it. For thirty nights it
        can be hung up again.
      </p>
      <div class="line">
        <v-btn @click="leaving = null">Leave it</v-btn>
        <v-btn color="error" @click="takeAway">Take it off</v-btn>
      </div>
    </Sheet>
    <Sheet v-model="looking" wide="36rem">
      <h2>Taken off the rack</h2>
      <ul class="off">
        <li v-for="one in off" :key="one.id">
          <span
            >{{ one.name }}
            <span class="quiet"
              >{{ one.by ? `by ${one.by}, ` : ''
              }}{{ one.nights_left === 1 ? 'one night' : `${one.nights_left} nights` }} left</span
            ></span
          >
          <button
            class="plain word"
            type="button"
            :aria-label="`Hang ${one.name} up again`"
            @click="hangAgain(one)"
          >
            hang it up again
          </button>
        </li>
      </ul>
      <v-btn @click="looking = false">Back to the rack</v-btn>
    </Sheet>
    <RevisionsSheet
      v-if="mending && earlier"
      v-model="earlier"
      :piece="mending.id"
      @restore="putBack"
    />
    <Sheet v-model="choosing" wide="68rem">
      <h2>What shall it be?</h2>
      <p>Each comes whole and sound; every size, joint and piece of it can be changed or mixed.</p>
      <ul class="starts">
        <li v-for="one in starts" :key="one.start">
          <button
            class="plain"
            type="button"
            :data-start="one.start"
            @click="begin({ start: one.start })"
          >
            <Drawing :view="one.drawing" />
            {{ one.title }}
          </button>
        </li>
      </ul>
    </Sheet>
  </main>
</template>

<style scoped>
.rack {
  padding: 1rem 1.25rem 3rem;
}
.line {
  display: flex;
  gap: 1.5rem;
  align-items: center;
}
h1 {
  font-size: 1.4rem;
}
.bring {
  position: relative;
  cursor: pointer;
}
.bring input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
  width: 100%;
}
.sought {
  max-width: 14rem;
}
.bring:focus-within {
  outline: 3px solid var(--measured);
}
.starts {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 0.6rem 1rem;
}
.starts button {
  width: 100%;
  padding: 0.3rem;
  text-align: center;
  font-size: 0.92rem;
}
.starts :deep(svg) {
  height: 104px;
}
.starts button:hover {
  background: var(--wood);
}
.pieces {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
  gap: 1.5rem 2rem;
  border-top: 10px solid var(--wood);
  margin-top: 1rem;
  padding-top: 1rem;
  position: relative;
}
.peg {
  display: grid;
  color: inherit;
  text-decoration: none;
}
.drawn {
  height: 215px;
  padding: 0 0.5rem 0.4rem;
}
.peg:hover strong {
  text-decoration: underline;
}
.small {
  font-size: 0.87rem;
  display: flex;
  gap: 1rem;
}
.small a {
  color: inherit;
}
span.small {
  flex-wrap: wrap;
  gap: 0 1rem;
}
.small .word {
  white-space: nowrap;
}
.peg .small {
  display: block;
}
.off {
  list-style: none;
}
.off li {
  display: flex;
  justify-content: space-between;
  gap: 1rem;
  padding: 0.25rem 0;
}
.wrong {
  color: var(--cut);
  padding-top: 0.6rem;
}
</style>
