<script setup lang="ts">
import type { LevelRound } from '../../api/types'
import FigureText from '../../fields/FigureText.vue'
import { usePiece } from '../../piece/store'

/** What each foot loses, with what, how sure that is, and what to put under it meanwhile. */
defineProps<{ /** The pass being worked on. */ round: LevelRound }>()
const store = usePiece()
</script>

<template>
  <section class="cut" aria-label="What to cut">
    <h2>
      {{ round.good ? 'Nothing need come off; to go on, cut to' : 'Cut to' }}
      <FigureText :text="round.height_after.text" />{{ ' ' }}
      <span v-if="round.short_by" class="short">
        <FigureText :text="round.short_by.text" /> lower than wanted
      </span>
    </h2>
    <v-table>
      <thead>
        <tr>
          <th scope="col">foot</th>
          <th scope="col">long side</th>
          <th scope="col">short side</th>
          <th scope="col">do</th>
          <th scope="col">within</th>
          <th scope="col">shim to stand true</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="foot in round.feet"
          :key="foot.key"
          :data-foot="foot.key"
          :class="{ lit: store.lit === foot.part }"
          @pointerenter="store.lit = foot.part"
          @pointerleave="store.lit = ''"
        >
          <td>{{ foot.name }}</td>
          <td>
            <FigureText class="big" :text="foot.long.quantity.text" />
            <span class="side">{{ foot.long_side }}</span>
          </td>
          <td>
            <FigureText class="big" :text="foot.short.quantity.text" />
            <span class="side">{{ foot.short_side }}</span>
          </td>
          <td>{{ foot.how }}</td>
          <td>
            <template v-if="foot.sure">± <FigureText :text="foot.sure.text" /></template>
            <span v-else class="quiet">to be measured</span>
          </td>
          <td>
            <FigureText :text="foot.shim.quantity.text" />
            <span v-if="foot.shim_of" class="quiet">{{ ` ${foot.shim_of}` }}</span>
          </td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
td {
  padding-block: 1px;
  vertical-align: baseline;
}
.cut {
  border-top: 1.5px solid var(--ink);
  padding-top: 0.2rem;
}
h2 {
  font-size: 1.05rem;
}
.short {
  color: var(--cut);
  font-size: 1rem;
  font-weight: 500;
}
.side {
  display: block;
  font-size: 1rem;
}
.big {
  font-size: 1.05rem;
  font-weight: 650;
  color: var(--cut);
}
td .quiet {
  font-size: 1rem;
}
</style>
