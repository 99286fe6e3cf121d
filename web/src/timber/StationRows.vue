<script setup lang="ts">
import { nextTick, ref } from 'vue'

import { api, ask } from '../api/client'
import { tried } from '../build/asked'
import { useShop } from '../shop/store'
import type { At } from './draft'
import TextBox from './TextBox.vue'

/** A slab measured along a string: so far along it, how far its edge lies to the near and to the far side. */
const emit = defineEmits<{ /** The outline that comes of it. */ outline: [corners: At[]] }>()
const shop = useShop()
const rows = ref([
  { at: '', near: '', far: '' },
  { at: '', near: '', far: '' },
  { at: '', near: '', far: '' },
])
const said = ref('')
const body = ref<HTMLElement>()
async function more(): Promise<void> {
  rows.value.push({ at: '', near: '', far: '' })
  await nextTick()
  body.value?.querySelector<HTMLElement>('.row:last-of-type input')?.focus()
}
async function use(): Promise<void> {
  said.value = ''
  const typed = rows.value.filter((row) => row.at || row.near || row.far)
  const text = ['at\tnear\tfar', ...typed.map((r) => `${r.at}\t${r.near}\t${r.far}`)].join('\n')
  await tried(said, async () => {
    const sent = { sort: 'csv' as const, text, bare: shop.system }
    const got = await ask(api.POST('/api/timber/outline', { body: sent }))
    emit(
      'outline',
      got.corners.map(([x = 0, y = 0]) => ({ x, y })),
    )
  })
}
</script>

<template>
  <details ref="body" data-stations>
    <summary>measured along a string</summary>
    <p class="small">
      Stretch a string down the slab. At each place: how far along it, and from it to the near and
      to the far edge.
    </p>
    <div v-for="(row, k) in rows" :key="k" class="row">
      <TextBox v-model="row.at" label="along" figures :bare="k > 0" @enter="more" />
      <TextBox v-model="row.near" label="to the near edge" figures :bare="k > 0" @enter="more" />
      <TextBox v-model="row.far" label="to the far edge" figures :bare="k > 0" @enter="more" />
    </div>
    <p v-if="said" role="alert" class="wrong">{{ said }}</p>
    <p class="line">
      <button class="plain word" type="button" @click="more">another place</button>
      <button class="plain word" type="button" data-use-stations @click="use">
        take this outline
      </button>
    </p>
  </details>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 9rem));
  gap: 4px;
  margin-bottom: 4px;
  align-items: end;
}
.line {
  display: flex;
  gap: 1.4rem;
}
.small {
  font-size: 0.88rem;
}
.wrong {
  color: var(--cut);
}
</style>
