<script setup lang="ts">
import { ref } from 'vue'

import type { Shop } from '../api/types'
import { tried } from '../build/asked'
import PickFile from '../fields/PickFile.vue'
import { useShop } from './store'

/** The shop as a file: out, and another's in, looked at first and taken back again. */
const store = useShop()
const said = ref('')
const looked = ref<{ shop: Partial<Shop>; name: string } | null>(null)
const before = ref<Shop | null>(null)
const MOST = 900_000

async function pick(file: File): Promise<void> {
  said.value = ''
  looked.value = null
  try {
    const given: unknown = file.size > MOST ? null : JSON.parse(await file.text())
    if (typeof given !== 'object' || given === null || !('format' in given)) throw new SyntaxError()
    if (given.format !== 'proud-rake-shop') throw new SyntaxError()
    looked.value = { shop: given as Partial<Shop>, name: file.name }
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error
    said.value = `${file.name} is no file of a shop. Choose one that was taken out here.`
  }
}
/** The other shop's tools, bits, spacers and printer; the units and the name stay one's own. */
async function take(): Promise<void> {
  const one = looked.value
  if (!one) return
  const was = store.shop
  const done = await tried(said, () =>
    store.change((now) => ({ ...one.shop, name: now.name, rounding: now.rounding }) as Shop),
  )
  if (!done) return
  before.value = was
  looked.value = null
  said.value = `The tools of ${one.name} are here now.`
}
async function putBack(): Promise<void> {
  const was = before.value
  if (!was || !(await tried(said, () => store.change(() => was)))) return
  before.value = null
  said.value = 'The shop is as it was.'
}
const many = (list: unknown[] | undefined, what: string): string =>
  `${list?.length ?? 0} ${what}${list?.length === 1 ? '' : 's'}`
</script>

<template>
  <section aria-labelledby="shop-file" data-shop-file>
    <h2 id="shop-file">As a file</h2>
    <p class="acts">
      <a class="word" href="/api/shop/file" download="shop.json" data-shop-out>take it out</a>
      <PickFile label="take one in" accept=".json,application/json" data-shop-in @pick="pick" />
      <span class="quiet">Tools with their scales, bits, spacers, printer and units.</span>
    </p>
    <p v-if="said" role="status" data-shop-said>
      {{ said }}
      <button v-if="before" class="plain word" type="button" data-shop-back @click="putBack">
        put the shop back as it was
      </button>
    </p>
    <p v-if="looked" data-shop-look>
      {{ looked.name }} holds {{ many(looked.shop.tools, 'tool') }},
      {{ many(looked.shop.bits, 'bit') }} and {{ many(looked.shop.spacers, 'spacer') }}. They take
      the place of {{ many(store.shop?.tools, 'tool') }} here; name and units stay.
      <button class="plain word" type="button" data-shop-take @click="take">take them</button>
      <button class="plain word" type="button" @click="looked = null">leave it</button>
    </p>
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.2rem;
  align-items: center;
}
.word {
  color: inherit;
  line-height: 24px;
}
button.word {
  margin-left: 0.8rem;
}
@media (max-width: 600px) {
  .word {
    line-height: 44px;
  }
}
</style>
