<script setup lang="ts">
import type { LevelRound } from '../../api/types'
import FigureText from '../../fields/FigureText.vue'

/** What every pass found and left. */
defineProps<{ /** All passes. */ rounds: LevelRound[] }>()
function most(round: LevelRound): string {
  const feet = [...round.feet].sort((a, b) => b.long.quantity.value - a.long.quantity.value)
  return feet[0]?.long.quantity.text ?? ''
}
</script>

<template>
  <section class="record" aria-label="Record of the passes">
    <v-table>
      <caption>
        Passes so far
      </caption>
      <thead>
        <tr>
          <th scope="col">pass</th>
          <th scope="col">measured</th>
          <th scope="col">rocked</th>
          <th scope="col">stood</th>
          <th scope="col">most cut</th>
          <th scope="col">left at</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="round in rounds" :key="round.number" :data-record="round.number">
          <td>{{ round.number }}</td>
          <td>{{ round.by }}, {{ round.answered }} of {{ round.asked }}</td>
          <td>{{ round.rocks?.text ?? 'no' }}</td>
          <td><FigureText :text="round.height_now.text" /></td>
          <td>{{ round.good ? 'nothing' : most(round) }}</td>
          <td>
            <FigureText :text="round.good ? round.height_now.text : round.height_after.text" />
          </td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
.record {
  border-top: 1.5px solid var(--ink);
  margin-top: 0.6rem;
  padding-top: 0.4rem;
}
</style>
