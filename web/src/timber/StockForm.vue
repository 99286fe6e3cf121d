<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { Fault, StockOut, StoreOut } from '../api/types'
import { smaller } from '../piece/smaller'
import { useShop } from '../shop/store'
import Choice from '../fields/Choice.vue'
import { labelOf, type Words } from '../fields/published'
import { called, type Draft, documentOf, draftOf, FIELDS, fresh, words } from './draft'
import FlawRows from './FlawRows.vue'
import SlabEditor from './SlabEditor.vue'
import StationRows from './StationRows.vue'
import TextBox from './TextBox.vue'

/** A piece of wood put into the store or changed: by the keys alone, or drawn over its photograph. */
const props = defineProps<{
  /** What is changed; none for a new one. */
  stock: StockOut | null
  /** Which kind a new one is. */
  kind: Draft['kind']
  /** The store: its kinds of wood and of flaws. */
  store: StoreOut
}>()
const emit = defineEmits<{
  /** It was kept. */
  kept: [stock: StockOut, another: boolean]
  /** Nothing of it is wanted. */
  shut: []
}>()
const shop = useShop()
const last = localStorage.getItem('proud-rake:species') ?? ''
const draft = ref<Draft>(props.stock ? draftOf(props.stock) : fresh(props.kind, last))
const faults = ref<Record<string, Fault>>({})
const said = ref('')
const busy = ref(false)
/** A photograph that was chosen and is not sent yet. */
const picture = ref<Blob | null>(null)
const local = ref('')
const ratio = ref(0.6)
watch(
  () => props.stock?.photo,
  (photo) => {
    if (photo) ratio.value = photo.height / photo.width
  },
  { immediate: true },
)
const photo = computed(() => {
  if (local.value) return local.value
  const kept = props.stock?.photo
  return kept && props.stock
    ? `/api/timber/${props.stock.id}/photo?${encodeURIComponent(kept.taken)}`
    : ''
})
const unknown = computed(() => {
  const name = draft.value.texts['species'] ?? ''
  return name !== '' && !props.store.species.includes(name)
})
const general = computed(() => said.value || faults.value['item']?.said || '')
/** The form may come later than it was asked for: the store has first to be there. */
const form = ref<HTMLFormElement>()
onMounted(() => form.value?.querySelector<HTMLElement>('[data-first] input')?.focus())
const called_ = (field: string): string => called(draft.value.kind, field)
/** A choice about it: what it is called, the words of it. */
const of = (field: string): { label: string; items: Words } => ({
  label: called_(field),
  items: words(draft.value.kind, field),
})
const own = (field: string): string => labelOf('OwnWood', field, 'Pile')

async function send(another = false): Promise<void> {
  if (busy.value) return
  busy.value = true
  said.value = ''
  faults.value = {}
  const item = documentOf(draft.value)
  try {
    const bare = shop.system
    let got: StockOut
    if (props.stock) {
      const params = { path: { id: props.stock.id } }
      const body = { item, bare, based_on: props.stock.number }
      got = (await ask(api.PUT('/api/timber/{id}', { params, body }))) as StockOut
    } else got = (await ask(api.POST('/api/timber', { body: { item, bare } }))) as StockOut
    if (picture.value && draft.value.kind === 'slab') {
      const sent = await ask(
        api.PUT('/api/timber/{id}/photo', {
          params: { path: { id: got.id } },
          body: picture.value as unknown as never,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { 'Content-Type': 'image/jpeg' },
        }),
      )
      got = { ...got, photo: sent }
    }
    localStorage.setItem('proud-rake:species', draft.value.texts['species'] ?? '')
    emit('kept', got, another)
  } catch (error) {
    if (error instanceof Away) said.value = 'The workshop does not answer: keep it again later.'
    else if (error instanceof Refused) {
      said.value = error.problem.faults?.length ? '' : error.problem.detail
      for (const fault of error.problem.faults ?? []) faults.value[fault.field] = fault
      const shown = [...FIELDS[draft.value.kind], 'name', 'species', 'moisture', 'cost', 'own']
      const lost = (error.problem.faults ?? []).filter(
        (f) =>
          !shown.some((n) => f.field.startsWith(`item.${n}`)) &&
          !/flaws|spots|outline/.test(f.field),
      )
      if (lost.length)
        said.value = lost.map((f) => `${f.field.replace('item.', '')}: ${f.said}`).join(' ')
    } else throw error
  } finally {
    busy.value = false
  }
}

const input = ref<HTMLInputElement>()
const drawing = ref<HTMLInputElement>()
async function chosen(): Promise<void> {
  const file = input.value?.files?.[0]
  if (input.value) input.value.value = ''
  if (!file) return
  const blob = await smaller(file)
  if (!blob) {
    said.value = 'That is no picture: choose a photograph (JPEG, PNG or WebP).'
    return
  }
  if (local.value) URL.revokeObjectURL(local.value)
  local.value = URL.createObjectURL(blob)
  picture.value = blob
  const size = await createImageBitmap(blob)
  ratio.value = size.height / size.width
  const xs = draft.value.outline.map((p) => p.x)
  const ys = draft.value.outline.map((p) => p.y)
  const [x, y] = [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2]
  draft.value.photo ??= {
    width: Math.round((Math.max(...xs) - Math.min(...xs)) * 1.2),
    x,
    y,
    turn: 0,
  }
}
const SORTS: Record<string, 'svg' | 'dxf' | 'csv'> = { svg: 'svg', dxf: 'dxf', csv: 'csv' }
async function drawn(): Promise<void> {
  const file = drawing.value?.files?.[0]
  if (drawing.value) drawing.value.value = ''
  if (!file) return
  const sort = SORTS[file.name.split('.').at(-1)?.toLowerCase() ?? '']
  if (!sort || file.size > 900_000) {
    said.value = sort
      ? 'It is larger than 900 kB: leave out all but the outline.'
      : 'Choose a drawing (SVG, DXF) or a table (CSV).'
    return
  }
  try {
    const body = { sort, text: await file.text(), bare: shop.system }
    const got = await ask(api.POST('/api/timber/outline', { body }))
    draft.value.outline = got.corners.map(([x = 0, y = 0]) => ({ x, y }))
    said.value = got.said
  } catch (error) {
    if (error instanceof Away) said.value = 'The workshop does not answer: choose it again later.'
    else if (error instanceof Refused)
      said.value = error.problem.faults?.[0]?.said ?? error.problem.detail
    else throw error
  }
}

let count = 0
let before = ''
/** One reading of the meter that is held to the wood. */
async function meter(): Promise<void> {
  if (!props.stock) return
  try {
    count += 1
    const params = { path: { id: props.stock.id } }
    const got = await ask(api.POST('/api/timber/{id}/meter', { params, body: { count, before } }))
    before = got.line || before
    said.value = got.said
    if (got.value === null) return
    draft.value.texts['moisture'] = String(got.value)
    const seen = (draft.value.kept['seen'] as unknown[] | undefined) ?? []
    const on = new Date().toISOString().slice(0, 10)
    draft.value.kept['seen'] = [...seen, { on, moisture: got.value }]
  } catch (error) {
    if (error instanceof Away) said.value = 'The workshop does not answer: read it again later.'
    else if (error instanceof Refused) said.value = error.problem.detail
    else throw error
  }
}
const fault = (name: string): Fault | undefined => faults.value[`item.${name}`]
const set = (name: string, value: string): void => {
  draft.value.texts[name] = value
}
</script>

<template>
  <form ref="form" class="form" data-stock-form @submit.prevent="send()">
    <div v-if="draft.kind === 'slab'" class="wide">
      <SlabEditor
        v-model:draft="draft"
        :photo="photo"
        :ratio="ratio"
        :kinds="store.flaws"
        :faults="faults"
      />
      <p class="line">
        <button class="plain word" type="button" data-slab-photo @click="input?.click()">
          {{ photo ? 'another photograph' : 'lay a photograph under it' }}
        </button>
        <button class="plain word" type="button" data-slab-file @click="drawing?.click()">
          its outline from a drawing or a table
        </button>
      </p>
      <StationRows @outline="draft.outline = $event" />
      <input
        ref="input"
        type="file"
        accept="image/jpeg,image/png,image/webp"
        hidden
        @change="chosen"
      />
      <input
        ref="drawing"
        type="file"
        accept=".svg,.dxf,.csv"
        hidden
        data-slab-input
        @change="drawn"
      />
    </div>
    <div class="grid">
      <TextBox
        :model-value="draft.texts['name'] ?? ''"
        :label="called_('name')"
        :fault="fault('name')"
        data-first
        @update:model-value="set('name', $event)"
      />
      <TextBox
        :model-value="draft.texts['species'] ?? ''"
        :label="called_('species')"
        list="kinds-of-wood"
        :fault="fault('species')"
        @update:model-value="set('species', $event)"
      />
      <datalist id="kinds-of-wood">
        <option v-for="name in store.species" :key="name" :value="name" />
      </datalist>
    </div>
    <div v-if="unknown || draft.texts['gravity'] || fault('own')" class="grid three" data-own>
      <p class="all">
        {{ fault('own')?.said ?? 'This kind is in no table here: give its figures from yours.' }}
      </p>
      <TextBox
        :model-value="draft.texts['gravity'] ?? ''"
        :label="own('gravity')"
        figures
        :fault="fault('own.gravity')"
        @update:model-value="set('gravity', $event)"
      />
      <TextBox
        :model-value="draft.texts['radial'] ?? ''"
        :label="own('radial')"
        figures
        :fault="fault('own.radial')"
        @update:model-value="set('radial', $event)"
      />
      <TextBox
        :model-value="draft.texts['tangential'] ?? ''"
        :label="own('tangential')"
        figures
        :fault="fault('own.tangential')"
        @update:model-value="set('tangential', $event)"
      />
    </div>
    <div class="grid three">
      <TextBox
        v-for="name in FIELDS[draft.kind]"
        :key="name"
        :model-value="draft.texts[name] ?? ''"
        :label="called_(name)"
        figures
        :fault="fault(name)"
        :data-stock-field="name"
        @update:model-value="set(name, $event)"
      />
      <TextBox
        :model-value="draft.texts['moisture'] ?? ''"
        :label="called_('moisture')"
        figures
        :fault="fault('moisture')"
        @update:model-value="set('moisture', $event)"
      />
      <TextBox
        :model-value="draft.texts['cost'] ?? ''"
        :label="called_('cost')"
        figures
        :fault="fault('cost')"
        @update:model-value="set('cost', $event)"
      />
    </div>
    <p v-if="stock && shop.shop?.instruments !== 'none'" class="line">
      <button class="plain word" type="button" data-meter @click="meter">
        read the moisture meter
      </button>
    </p>
    <FlawRows
      v-if="draft.kind === 'board'"
      v-model:rows="draft.flaws"
      :kinds="store.flaws"
      :faults="faults"
    />
    <details>
      <summary>Where from, where it lies, how it is sawn</summary>
      <Choice v-bind="of('source')" :value="draft.source" @choose="draft.source = $event" />
      <template v-if="draft.kind === 'board'">
        <Choice v-bind="of('rings')" :value="draft.rings" @choose="draft.rings = $event" />
        <v-checkbox-btn v-model="draft.planed" inline :label="called_('planed')" />
      </template>
      <Choice
        v-if="draft.kind === 'stick'"
        v-bind="of('section')"
        :value="draft.section"
        @choose="draft.section = $event"
      />
      <v-checkbox-btn
        v-if="draft.kind === 'slab'"
        v-model="draft.live"
        inline
        :label="called_('live')"
      />
      <TextBox
        :model-value="draft.texts['place'] ?? ''"
        :label="called_('place')"
        @update:model-value="set('place', $event)"
      />
      <TextBox
        :model-value="draft.texts['notes'] ?? ''"
        :label="called_('notes')"
        @update:model-value="set('notes', $event)"
      />
    </details>
    <p v-if="general" class="said" role="status" data-form-said>{{ general }}</p>
    <p class="line">
      <button class="do" type="submit" :disabled="busy" data-keep>
        {{ stock ? 'keep' : 'into the store' }}
      </button>
      <button
        v-if="!stock"
        class="plain word"
        type="button"
        :disabled="busy"
        data-keep-more
        @click="send(true)"
      >
        keep, and enter another
      </button>
      <button class="plain word" type="button" @click="emit('shut')">leave it</button>
    </p>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 0.6rem;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem 0.6rem;
}
.three {
  grid-template-columns: repeat(3, minmax(0, 1fr));
}
.all {
  grid-column: 1 / -1;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.4rem;
  align-items: baseline;
}
.said {
  border-left: 6px double var(--caution);
  padding-left: 8px;
}
.do {
  font: inherit;
  font-weight: 650;
  color: var(--paper);
  background: var(--ink);
  border: 0;
  padding: 6px 16px;
  min-height: 36px;
  cursor: pointer;
}
details > * {
  margin-top: 0.3rem;
}
</style>
