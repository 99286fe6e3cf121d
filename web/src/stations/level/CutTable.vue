<script setup lang="ts">
import { computed } from 'vue'

import type { LevelRound } from '../../api/types'
import FigureText from '../../fields/FigureText.vue'
import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'

/** What each foot loses, with what, and the one block or height that marks them all. */
const props = defineProps<{ /** The pass being worked on. */ round: LevelRound }>()
const store = usePiece()
const tilted = computed(() => props.round.tilt.value > 0.005)
const sawing = computed(() => props.round.feet.some((foot) => foot.how === 'saw'))
</script>

<template>
  <section class="cut" aria-label="What to cut">
    <h2>
      Cut to <FigureText :text="round.height_after.text" />{{ ' ' }}
      <span v-if="round.short_by" class="short">
        <FigureText :text="round.short_by.text" /> lower than wanted
      </span>
    </h2>
    <table>
      <thead>
        <tr>
          <th>foot</th>
          <th>outer side</th>
          <th>inner side</th>
          <th></th>
          <th>within</th>
          <th>shim to stand true</th>
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
          <td class="big"><FigureText :text="foot.long.quantity.text" /></td>
          <td class="big"><FigureText :text="foot.short.quantity.text" /></td>
          <td>{{ foot.how }}</td>
          <td>
            <template v-if="foot.sure">± <FigureText :text="foot.sure.text" /></template>
            <span v-else class="quiet">to be measured</span>
          </td>
          <td>
            <FigureText :text="foot.shim.quantity.text" />
            <span v-if="foot.shim_of" class="quiet">{{ foot.shim_of }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <div class="figs">
      <WhyFigure v-if="round.bench" :figure="round.bench" />
      <WhyFigure :figure="round.block" />
      <p v-if="round.block_of" class="quiet of">{{ round.block_of }}</p>
      <WhyFigure v-if="round.spacer" :figure="round.spacer" />
      <p v-if="round.spacer_of" class="quiet of">{{ round.spacer_of }}</p>
      <WhyFigure :figure="round.highest" />
    </div>
    <p v-if="tilted" class="how">
      This cut lets the top lean by {{ round.tilt.text }} to lose less of the legs.
    </p>
    <p class="care">
      Clamp or wedge the piece so that no leg can roll or spring; saw a little outside the line and
      keep the other hand behind the saw.
      <template v-if="!sawing"
        >Nothing is thick enough to saw: rub it on paper glued to a flat.</template
      >
    </p>
  </section>
</template>

<style scoped src="../table.css"></style>
<style scoped>
.cut {
  display: grid;
  gap: 0.35rem;
  border-top: 1.5px solid var(--ink);
  margin-top: 0.6rem;
  padding-top: 0.4rem;
}
h2 {
  font-size: 1.15rem;
}
.short {
  color: var(--cut);
  font-size: 0.95rem;
  font-weight: 500;
}
.big {
  font-size: 1.12rem;
  font-weight: 650;
  color: var(--cut);
}
td .quiet {
  display: block;
  font-size: 0.8rem;
}
.of {
  font-size: 0.84rem;
  text-align: right;
}
.how {
  font-size: 0.9rem;
}
.care {
  font-size: 0.86rem;
  border-left: 6px double var(--caution);
  padding-left: 8px;
}
</style>
