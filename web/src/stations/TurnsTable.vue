<script setup lang="ts">
import type { SetUp } from '../api/types'
import FigureText from '../fields/FigureText.vue'
import { usePiece } from '../piece/store'

/** How each leg's sightline is marked on the top, from both lines. */
defineProps<{ /** One line a leg. */ turns: SetUp['turns'] }>()
const store = usePiece()
</script>

<template>
  <v-table>
    <caption>
      Sightlines to mark
    </caption>
    <thead>
      <tr>
        <th scope="col">leg</th>
        <th scope="col">from left-right line</th>
        <th scope="col">from front-back line</th>
        <th scope="col">leans to, as it stands</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="turn in turns"
        :key="turn.leg"
        :class="{ lit: store.lit === `leg.${turn.leg}` }"
        @pointerenter="store.lit = `leg.${turn.leg}`"
        @pointerleave="store.lit = ''"
      >
        <td class="figures">{{ turn.leg }}</td>
        <td><FigureText :text="turn.from_side?.text ?? 'none'" /></td>
        <td><FigureText :text="turn.from_centre?.text ?? 'none'" /></td>
        <td>{{ turn.toward }}</td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
td {
  padding-block: 1px;
}
th:first-child,
td:first-child {
  width: 2.2rem;
}
</style>
