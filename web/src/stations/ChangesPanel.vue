<script setup lang="ts">
import { computed } from 'vue'

import FigureText from '../fields/FigureText.vue'
import { usePiece } from '../piece/store'

/** What readings moved, and what is cut already and so stays as it is. */
const props = defineProps<{
  /** Whether only legs, or only what runs between them, is shown. */ of: 'leg' | 'member'
}>()
const store = usePiece()
const moved = computed(() => (store.plan?.changes ?? []).filter((change) => change.of === props.of))
</script>

<template>
  <section v-if="moved.length" class="moved" aria-label="What the readings changed" data-changes>
    <v-table>
      <caption>
        What the readings changed
      </caption>
      <tbody>
        <tr
          v-for="change in moved"
          :key="change.part + change.what"
          :class="{ lit: store.lit === change.part, cut: change.cut }"
          @pointerenter="store.lit = change.part"
          @pointerleave="store.lit = ''"
        >
          <td>{{ change.what }}</td>
          <td class="was"><FigureText :text="change.was.text" /></td>
          <td class="now"><FigureText :text="change.now.text" /></td>
          <td class="quiet">{{ change.said }}</td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
.moved {
  border-top: 1.5px solid var(--ink);
  margin-top: 0.5rem;
  padding-top: 0.3rem;
}
.was {
  text-decoration: line-through;
  opacity: 0.8;
}
.now {
  color: var(--measured);
  font-weight: 650;
}
td {
  font-size: 0.88rem;
}
</style>
