<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'

import { api, ask, Refused } from '../api/client'
import type { Difference, Piece, RevisionOut, View } from '../api/types'
import Drawing from '../drawing/Drawing.vue'
import FigureText from '../fields/FigureText.vue'
import Sheet from '../Sheet.vue'
import { mostOf } from '../fields/published'

/** Every saved state of a piece; two of them drawn side by side and compared; one of them put back. */
const props = defineProps<{ /** Id of the piece. */ piece: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  /** An earlier state is to be put back. */ restore: [piece: Piece, says: string]
}>()

const rows = ref<RevisionOut[]>([])
const a = ref(0)
const b = ref(0)
const found = ref<Difference[]>([])
const drawn = ref<Record<number, View>>({})
const failed = ref('')
const sides = computed(() => [
  { name: 'before', number: a.value },
  { name: 'after', number: b.value },
])

onMounted(() => void load())
watch([a, b], () => void compare())

async function load(): Promise<void> {
  try {
    const path = { id: props.piece }
    rows.value = await ask(api.GET('/api/pieces/{id}/revisions', { params: { path } }))
    b.value = rows.value[0]?.number ?? 0
    a.value = rows.value[1]?.number ?? b.value
  } catch {
    failed.value = 'The workshop does not answer. Close this and open it again.'
  }
}

async function compare(): Promise<void> {
  if (!a.value || !b.value) return
  const [from, to] = [a.value, b.value]
  const params = { path: { id: props.piece }, query: { a: from, b: to } }
  failed.value = ''
  void draw(from)
  void draw(to)
  try {
    const got = await ask(api.GET('/api/pieces/{id}/compare', { params }))
    if (from === a.value && to === b.value) found.value = got
  } catch (error) {
    found.value = []
    failed.value =
      error instanceof Refused
        ? 'One of these two cannot be read by this program. Choose another, or put one back.'
        : 'The workshop does not answer. Close this and open it again.'
  }
}

/** What a state looked like; one that cannot be drawn stays without a picture. */
async function draw(number: number): Promise<void> {
  if (number in drawn.value) return
  const path = { id: props.piece, number }
  try {
    const view = (await ask(
      api.GET('/api/pieces/{id}/revisions/{number}/drawing', { params: { path } }),
    )) as View
    drawn.value = { ...drawn.value, [number]: view }
  } catch {
    // Its figures are compared all the same.
  }
}

async function putBack(number: number): Promise<void> {
  const path = { id: props.piece, number }
  try {
    const old = await ask(api.GET('/api/pieces/{id}/revisions/{number}', { params: { path } }))
    emit('restore', old.piece, `back to state ${number}${calls(number)}`)
    open.value = false
  } catch (error) {
    failed.value =
      error instanceof Refused
        ? `State ${number} cannot be read by this program. Put back another.`
        : 'The workshop does not answer. Try again.'
  }
}

async function call(row: RevisionOut, called: string): Promise<void> {
  const path = { id: props.piece, number: row.number }
  try {
    const got = await ask(
      api.PUT('/api/pieces/{id}/revisions/{number}/called', { params: { path }, body: { called } }),
    )
    rows.value = rows.value.map((one) => (one === row ? { ...row, called: got.called } : one))
  } catch (error) {
    failed.value =
      error instanceof Refused
        ? (error.problem.faults?.[0]?.said ?? error.problem.detail)
        : 'The workshop does not answer: the name is not kept. Try again.'
  }
}

const rowOf = (number: number): RevisionOut | undefined =>
  rows.value.find((row) => row.number === number)
const calls = (number: number): string => {
  const called = rowOf(number)?.called
  return called ? `, “${called}”` : ''
}
const when = (text: string): string =>
  new Date(text).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <Sheet v-model="open" wide="64rem">
    <h2>Earlier states</h2>
    <p v-if="failed" role="alert">{{ failed }}</p>
    <div class="two">
      <ul>
        <li class="quiet" aria-hidden="true"><span>from</span><span>to</span></li>
        <li v-for="row in rows" :key="row.number" :data-state="row.number">
          <v-radio v-model="a" name="a" :value="row.number" :aria-label="`before: ${row.number}`" />
          <v-radio v-model="b" name="b" :value="row.number" :aria-label="`after: ${row.number}`" />
          <span class="figures">{{ row.number }}</span>
          <span
            ><b v-if="row.called">{{ row.called }}, </b>{{ when(row.saved) }},
            {{ row.by ?? 'the demo' }}</span
          >
        </li>
      </ul>
      <div class="seen">
        <div class="sides">
          <figure v-for="side in sides" :key="side.name" :data-side="side.name">
            <figcaption>{{ side.number }}{{ calls(side.number) }}</figcaption>
            <div class="drawn">
              <Drawing v-if="drawn[side.number]" :view="drawn[side.number]!" />
            </div>
            <v-text-field
              v-if="rowOf(side.number)"
              :model-value="rowOf(side.number)!.called"
              :label="`Call state ${side.number}`"
              :maxlength="mostOf('Called', 'called', 'Sent')"
              @change="call(rowOf(side.number)!, ($event.target as HTMLInputElement).value)"
            />
            <button class="plain word" type="button" @click="putBack(side.number)">
              put {{ side.number }} back
            </button>
          </figure>
        </div>
        <h3>What differs</h3>
        <p v-if="!found.length" class="quiet">Nothing.</p>
        <v-table v-else>
          <thead>
            <tr>
              <th scope="col">what</th>
              <th scope="col">in {{ a }}</th>
              <th scope="col">in {{ b }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="item in found" :key="item.path">
              <th scope="row">{{ item.what }}</th>
              <td><FigureText :text="item.before || 'none'" /></td>
              <td><FigureText :text="item.after || 'none'" /></td>
            </tr>
          </tbody>
        </v-table>
      </div>
    </div>
    <v-btn @click="open = false">Back to work</v-btn>
  </Sheet>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(15rem, 1fr) 2.2fr;
  gap: 1.5rem;
  max-height: 62vh;
  overflow: auto;
}
ul {
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 2rem 2rem 1.6rem 1fr;
  gap: 0.4rem;
  align-items: center;
  padding: 3px 0;
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 1rem;
}
figure {
  display: grid;
  gap: 0.3rem;
  justify-items: start;
}
figure :deep(.v-input) {
  width: 100%;
}
.drawn {
  width: 100%;
  height: 170px;
  border: 1px solid var(--line);
  background: var(--paper);
}
h3 {
  margin-top: 0.8rem;
}
@media (max-width: 760px) {
  .two,
  .sides {
    grid-template-columns: 1fr;
  }
}
</style>
