<script setup lang="ts">
import PickFile from '../fields/PickFile.vue'
import { usePiece } from '../piece/store'
import { useShop } from '../shop/store'
import { useTable } from './paper'
import { soMany } from '../words'

/** A table of readings filled in elsewhere: looked through first, then taken in whole, or taken back. */
const store = usePiece()
const shop = useShop()
const { said, looked, undo, busy, send, takeBack } = useTable(
  () => store.id,
  () => shop.system,
  () => void store.catchUp(),
)
const MOST = 900_000

async function pick(file: File): Promise<void> {
  if (file.size > MOST) said.value = 'It is larger than 900 kB: take it in in parts.'
  else await send(await file.text(), store.copy, false)
}
</script>

<template>
  <section aria-labelledby="readings-in" data-readings-in>
    <h2 id="readings-in">Readings brought in</h2>
    <p class="small">
      Take the readings out as CSV, fill in the column called value (mm or degrees), take the file
      in.
    </p>
    <PickFile label="choose a table" accept=".csv,text/csv" data-readings-file @pick="pick" />
    <p v-if="said" role="status" data-readings-said>{{ said }}</p>
    <p v-if="undo !== null">
      <button class="plain word" type="button" data-readings-undo @click="takeBack">
        take them back
      </button>
    </p>
    <div v-if="looked" data-readings-look>
      <p v-if="looked.found.fresh.length">
        <b
          >{{
            soMany(
              looked.found.fresh.length,
              'reading is new or changes',
              'readings are new or change',
            )
          }}.</b
        >
        {{ looked.found.same ? `${looked.found.same} say what stands.` : '' }}
      </p>
      <p v-else>Nothing in it is new.</p>
      <ul class="rows">
        <li v-for="one in looked.found.fresh" :key="one.row">
          <span class="quiet">row {{ one.row }}</span> {{ one.about }}
          <span class="figures">{{ one.said }}</span>
        </li>
        <li v-for="one in looked.found.bad" :key="`b${one.row}`" class="bad">
          <span class="quiet">row {{ one.row }}</span> {{ one.about }}: {{ one.said }}
        </li>
      </ul>
      <p v-if="looked.found.bad.length" class="bad" role="alert">
        All of it is taken in, or nothing: mend or leave out the rows that are named.
      </p>
      <button
        v-else-if="looked.found.fresh.length"
        class="plain do"
        type="button"
        :disabled="busy"
        data-readings-take
        @click="send(looked.text, looked.copy, true)"
      >
        take them in
      </button>
      <button class="plain word" type="button" @click="looked = null">leave it</button>
    </div>
  </section>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.rows {
  list-style: none;
  max-height: 15rem;
  overflow-y: auto;
}
.rows li {
  padding: 0.15rem 0;
  font-size: 0.92rem;
}
.bad {
  color: var(--cut);
  font-weight: 600;
}
.do {
  border: 1.5px solid var(--ink);
  padding: 2px 14px;
  margin-right: 1rem;
}
@media (max-width: 700px) {
  .do {
    min-height: 44px;
    line-height: 44px;
  }
}
</style>
