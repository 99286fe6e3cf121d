<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'

import { api, ask, Refused } from '../api/client'
import type { Difference, Piece, RevisionOut } from '../api/types'
import FigureText from '../fields/FigureText.vue'
import Sheet from '../Sheet.vue'

/** Every saved state of a piece; two of them compared; one of them put back. */
const props = defineProps<{ /** Id of the piece. */ piece: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  /** An earlier state is to be put back. */ restore: [piece: Piece, says: string]
}>()

const rows = ref<RevisionOut[]>([])
const a = ref(0)
const b = ref(0)
const found = ref<Difference[]>([])
const failed = ref('')

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
  const params = { path: { id: props.piece }, query: { a: a.value, b: b.value } }
  failed.value = ''
  try {
    found.value = await ask(api.GET('/api/pieces/{id}/compare', { params }))
  } catch (error) {
    found.value = []
    failed.value =
      error instanceof Refused
        ? 'One of these two cannot be read by this program. Choose another, or put one back.'
        : 'The workshop does not answer. Close this and open it again.'
  }
}

async function putBack(number: number): Promise<void> {
  const path = { id: props.piece, number }
  try {
    const old = await ask(api.GET('/api/pieces/{id}/revisions/{number}', { params: { path } }))
    emit('restore', old.piece, `back to state ${number}`)
    open.value = false
  } catch (error) {
    failed.value =
      error instanceof Refused
        ? `State ${number} cannot be read by this program. Put back another.`
        : 'The workshop does not answer. Try again.'
  }
}

const when = (text: string): string =>
  new Date(text).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <Sheet v-model="open" wide="46rem">
    <h2>Earlier states</h2>
    <p v-if="failed" role="alert">{{ failed }}</p>
    <div class="two">
      <ul>
        <li v-for="row in rows" :key="row.number">
          <label
            ><input v-model="a" type="radio" name="a" :value="row.number" /><span class="hide"
              >before: {{ row.number }}</span
            ></label
          >
          <label
            ><input v-model="b" type="radio" name="b" :value="row.number" /><span class="hide"
              >after: {{ row.number }}</span
            ></label
          >
          <span class="figures">{{ row.number }}</span>
          <span>{{ when(row.saved) }}, {{ row.by ?? 'the demo' }}</span>
          <button class="plain word" type="button" @click="putBack(row.number)">put back</button>
        </li>
      </ul>
      <div>
        <h3>From {{ a }} to {{ b }}</h3>
        <p v-if="!found.length" class="quiet">Nothing differs.</p>
        <dl>
          <div v-for="item in found" :key="item.path">
            <dt>{{ item.what }}</dt>
            <dd>
              <FigureText :text="item.before || 'none'" /> →
              <FigureText :text="item.after || 'none'" />
            </dd>
          </div>
        </dl>
      </div>
    </div>
    <v-btn @click="open = false">Back to work</v-btn>
  </Sheet>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 1.5rem;
  max-height: 55vh;
  overflow: auto;
}
ul {
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: auto auto 2rem 1fr auto;
  gap: 0.5rem;
  align-items: baseline;
  padding: 3px 0;
}
.hide {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
dl div {
  padding: 4px 0;
}
dt {
  font-size: 0.82rem;
  opacity: 0.85;
}
</style>
