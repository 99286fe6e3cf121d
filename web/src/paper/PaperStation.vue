<script setup lang="ts">
import { computed, watch } from 'vue'

import { usePiece } from '../piece/store'
import { useShop } from '../shop/store'
import { usePaper } from './paper'
import PrinterPanel from './PrinterPanel.vue'
import ReadingsIn from './ReadingsIn.vue'

/** What leaves the screen: sheets to print, patterns at full size, open files; readings brought in. */
const store = usePiece()
const shop = useShop()
const paper = usePaper(
  () => store.id,
  () => store.copy,
)
const { got, said, left, sorts, sheets: patternSheets, none } = paper
// Sheets are of the piece as it is saved, in the units and for the printer of now.
watch(
  () => [store.id, store.copy, store.status === 'saved', shop.shop] as const,
  ([id, , saved]) => id && saved && void paper.look(),
  { immediate: true },
)
const sheets = computed(() =>
  (got.value?.outs ?? []).filter((one) => one.group === 'paper' && one.name !== 'patterns'),
)
const GROUPS = { drawings: 'Drawings', solids: 'Solids', tables: 'Tables' }
const files = computed(() =>
  Object.entries(GROUPS).map(([group, title]) => ({
    group,
    title,
    outs: (got.value?.outs ?? []).filter((one) => one.group === group),
  })),
)
const without = (group: string): string =>
  files.value.find((one) => one.group === group)?.outs[0]?.without ?? ''
const pages = (many: number | null | undefined): string => `${many} sheet${many === 1 ? '' : 's'}`
</script>

<template>
  <div class="station paper">
    <div class="left">
      <p v-if="said" class="care" role="status" data-paper-said>{{ said }}</p>
      <p v-if="!got && !said" class="quiet" role="status">Counting the sheets.</p>
      <template v-if="got">
        <section aria-labelledby="sheets">
          <h2 id="sheets">Sheets</h2>
          <ul class="outs">
            <li v-for="one in sheets" :key="one.name" :data-out="one.name">
              <a class="title" :href="paper.address(one.name)" target="_blank">{{ one.title }}</a>
              <span class="figures pages">{{ pages(one.pages) }}</span>
              <span class="good">{{ one.good_for }}</span>
              <a class="word keep" :href="paper.address(one.name)" :download="one.called"
                >keep it</a
              >
            </li>
          </ul>
        </section>
        <section aria-labelledby="patterns">
          <h2 id="patterns">Patterns at full size</h2>
          <div class="sorts" role="group" aria-labelledby="patterns">
            <v-checkbox-btn
              v-for="(title, sort) in got.sorts"
              :key="sort"
              inline
              :label="title"
              :model-value="!left.has(String(sort))"
              :data-sort="sort"
              @update:model-value="paper.take(String(sort), $event)"
            />
          </div>
          <p v-if="none" class="quiet">Tick what is wanted.</p>
          <p v-else class="go" data-patterns>
            <a class="do" :href="paper.address('patterns', { sorts })" target="_blank">
              print
              <b v-if="patternSheets !== undefined" class="figures" data-pattern-pages>{{
                pages(patternSheets)
              }}</b>
              <span v-else class="quiet">counting the sheets</span>
            </a>
            <a class="word" :href="paper.address('patterns', { sorts })" download>keep them</a>
            <a class="word" :href="paper.address('patterns-dxf', { sorts })" download>as DXF</a>
            <a class="word" :href="paper.address('patterns-svg', { sorts })" download>as SVG</a>
          </p>
          <ul class="patterns">
            <li
              v-for="one in got.patterns.filter((p) => !left.has(p.sort))"
              :key="one.id"
              :data-pattern="one.id"
            >
              <details>
                <summary>
                  {{ one.title }}
                  <span class="figures">{{ one.size }}</span>
                  <span class="quiet">{{ pages(one.pages) }}</span>
                </summary>
                <p v-for="line in one.told" :key="line">{{ line }}</p>
                <p class="go">
                  <a
                    class="word"
                    :href="paper.address('patterns', { pattern: one.id })"
                    target="_blank"
                    >print this one</a
                  >
                  <a class="word" :href="paper.address('pattern-dxf', { pattern: one.id })" download
                    >DXF</a
                  >
                  <a class="word" :href="paper.address('pattern-svg', { pattern: one.id })" download
                    >SVG</a
                  >
                </p>
              </details>
            </li>
          </ul>
        </section>
      </template>
    </div>
    <aside class="panel">
      <PrinterPanel />
      <template v-if="got">
        <p class="small" data-code>
          <template v-if="got.code">
            The bench sheet bears a square code: a phone of this shop opens the bench mode with it.
          </template>
          <template v-else>
            The bench sheet bears no code: this page is served to this machine alone. Serve it to
            the shop, and open it there by the shop's own address.
          </template>
        </p>
        <section v-for="one in files" :key="one.group" :aria-labelledby="`as-${one.group}`">
          <h2 :id="`as-${one.group}`">{{ one.title }}</h2>
          <ul class="outs files">
            <li v-for="out in one.outs" :key="out.name" :data-out="out.name">
              <a class="title" :href="paper.address(out.name)" download>{{ out.title }}</a>
              <span class="good">{{ out.good_for }}</span>
            </li>
          </ul>
          <p class="small without" :data-without="one.group">{{ without(one.group) }}</p>
        </section>
        <p class="small">
          All of it, to be taken in again: the piece's own file, on
          <RouterLink class="word" to="/">the rack</RouterLink>. When it is worked on: the calendar,
          under <RouterLink class="word" to="/time">time</RouterLink>.
        </p>
      </template>
      <ReadingsIn />
    </aside>
  </div>
</template>

<style scoped src="../stations/station.css"></style>
<style scoped src="./paper.css"></style>
<style scoped>
.paper {
  grid-template-columns: minmax(0, 1fr) 480px;
}
.figures {
  font-size: 0.9rem;
}
section {
  padding-bottom: 1rem;
}
.outs,
.patterns {
  list-style: none;
}
.outs li {
  display: grid;
  grid-template-columns: 12.5rem 5.5rem minmax(0, 1fr) auto;
  gap: 0 0.9rem;
  align-items: baseline;
  padding: 0.38rem 0;
  border-bottom: 1px solid var(--line);
}
.files li {
  grid-template-columns: 11rem minmax(0, 1fr);
}
.title {
  color: inherit;
  font-weight: 650;
  line-height: 24px;
  text-underline-offset: 3px;
}
.good {
  font-size: 0.92rem;
}
.sorts,
.go {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.2rem;
  align-items: center;
  padding: 0.4rem 0;
}
.word {
  color: inherit;
  line-height: 24px;
}
.do {
  color: inherit;
  border: 1.5px solid var(--ink);
  padding: 4px 14px;
  text-decoration: none;
  min-height: 24px;
}
.do:hover {
  background: var(--sheet);
}
.patterns li {
  border-bottom: 1px solid var(--line);
}
summary {
  cursor: pointer;
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.9rem;
  align-items: baseline;
  min-height: 32px;
  line-height: 32px;
}
summary::before {
  content: '+';
  font-family: var(--mono);
}
details[open] summary::before {
  content: '−';
}
.care {
  border-left: 8px solid var(--caution);
  padding: 0.3rem 0.8rem;
}
@media (max-width: 1100px) {
  .paper {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 600px) {
  /* Sheets come first on a phone too: nothing is read here. */
  .panel {
    order: 0;
  }
}
@media (max-width: 700px) {
  .outs li,
  .files li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .good {
    grid-column: 1 / -1;
  }
  .title,
  .word {
    line-height: 44px;
  }
}
</style>
