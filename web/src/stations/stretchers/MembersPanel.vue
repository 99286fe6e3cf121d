<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Figure, Member } from '../../api/types'
import FigureText from '../../fields/FigureText.vue'
import DocumentForm from '../../fields/DocumentForm.vue'
import { wishes, wordsOf } from '../../fields/published'
import { choice, type Row, typed } from '../../fields/rows'
import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'

/** The stretchers and ropes of a piece, one row each, and the one being looked at in full. */
const store = usePiece()
const members = computed(() => store.piece?.members ?? [])
const at = ref(0)
const here = computed(() => Math.min(at.value, members.value.length - 1))
const one = computed(() => members.value[here.value])
const part = computed(() => store.plan?.members.find((p) => p.number === here.value + 1))
const rope = computed(() => store.plan?.ropes.find((p) => p.number === here.value + 1))

const ARRANGEMENTS = wishes('members')
const MORE = wishes('more_members')
const arrange = (to: string): void => {
  // What is there is not thrown away unasked.
  const keeps = MORE.some(({ value }) => value === to) || !members.value.length
  if (keeps) store.restate({ what: 'members', to })
  else asking.value = to
}
const asking = ref('')
function answer(what: 'members' | 'more_members'): void {
  store.restate({ what, to: asking.value })
  asking.value = ''
}
const titleOf = (to: string): string => ARRANGEMENTS.find(({ value }) => value === to)?.title ?? to

/** Lengths and names of a member, whichever kind it is. */
function line(
  member: Member,
  k: number,
): { name: string; gap: string; long: string; read: string } {
  const stick = store.plan?.members.find((p) => p.number === k + 1)
  if (stick)
    return {
      name: stick.name,
      gap: stick.gap.quantity.text,
      long: stick.total.quantity.text,
      read: stick.ends.map((end) => end.read.quantity.text).join(' and '),
    }
  const cord = store.plan?.ropes.find((p) => p.number === k + 1)
  return {
    name: cord?.name ?? '',
    gap: '',
    long: cord?.loop.quantity.text ?? '',
    read: [...new Set(cord?.holes.map((hole) => hole.read.quantity.text))].join(', '),
  }
}
const figures = computed<Figure[]>(() => {
  if (rope.value) {
    const { hole, loop, downs, holes } = rope.value
    return [hole, loop, ...downs.flatMap((down, k) => [down, holes[k]?.turn ?? down])]
  }
  const p = part.value
  if (!p) return []
  const ends = p.ends.flatMap((end) => [
    end.read,
    end.down,
    end.turn,
    end.obtuse_wall,
    end.acute_wall,
    end.behind,
    end.shoulder,
  ])
  return [p.centres, p.gap, p.total, ...ends]
})
const LEVEL = wordsOf('Level', 'by').map(({ value, title }): [unknown, string] => [value, title])
const LEGS = computed<[unknown, string][]>(() =>
  (store.plan?.legs ?? []).map((leg) => [leg.id, String(leg.number)]),
)
const numberOf = (id: string): string =>
  String(store.plan?.legs.find((leg) => leg.id === id)?.number ?? '')
/** The stretchers an end can go into: those that stand before this one. */
const STICKS = computed<[unknown, string][]>(() =>
  (store.plan?.members ?? [])
    .filter((stick) => stick.number <= here.value)
    .map((stick) => [stick.id, stick.name]),
)
const rows = computed<(Row | string)[]>(() => {
  const member = one.value
  if (!member) return []
  if (member.kind === 'rope')
    return ['name', 'level.by', 'level.value', 'diameter', 'ease', 'knot', 'closed']
  const made: (Row | string)[] = ['name']
  member.ends.forEach((end, e) => {
    const n = e + 1
    if (end.on === 'leg')
      made.push(
        choice(`ends.${e}.leg`, `End ${n} in leg`, LEGS.value),
        choice(`ends.${e}.level.by`, `On leg ${numberOf(end.leg)}`, LEVEL),
        typed(`ends.${e}.level.value`, `Leg ${numberOf(end.leg)}`),
      )
    else made.push(choice(`ends.${e}.member`, `End ${n} in`, STICKS.value))
  })
  return [...made, 'section', 'diameter', 'tenon', 'depth', 'spring']
})
/** Taken away with those that ran to it. */
const drop = (id = ''): void => store.restate({ what: 'away', to: id })
</script>

<template>
  <section class="members" aria-label="What runs between the legs">
    <p class="line">
      <span>Between the legs:</span>
      <button
        v-for="{ value, title } in ARRANGEMENTS"
        :key="value"
        class="plain word"
        type="button"
        :data-arrange="value"
        @click="arrange(value)"
      >
        {{ title }}
      </button>
      <span>and besides:</span>
      <button
        v-for="{ value, title } in MORE"
        :key="value"
        class="plain word"
        type="button"
        :data-arrange="value"
        @click="arrange(value)"
      >
        {{ title }}
      </button>
    </p>
    <p v-if="asking" class="line asking" role="alert" data-asking>
      <span
        >{{ members.length === 1 ? 'One is' : `${members.length} are` }} there.
        {{ asking === 'none' ? 'Take all away?' : `Shall ${titleOf(asking)} come` }}</span
      >
      <button
        v-if="asking !== 'none'"
        class="plain word"
        type="button"
        @click="answer('more_members')"
      >
        beside what is there
      </button>
      <button class="plain word" type="button" @click="answer('members')">
        {{ asking === 'none' ? 'take them away' : 'in its place' }}
      </button>
      <button class="plain word" type="button" @click="asking = ''">leave it</button>
    </p>
    <v-table v-if="members.length">
      <thead>
        <tr>
          <th scope="col">no.</th>
          <th scope="col">member</th>
          <th scope="col">clear gap</th>
          <th scope="col">length</th>
          <th scope="col">angles, acute</th>
          <td></td>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(member, k) in members"
          :key="k"
          :data-member="k + 1"
          :class="{ lit: store.lit === `member.${k + 1}`, on: k === here }"
          @click="at = k"
          @pointerenter="store.lit = `member.${k + 1}`"
          @pointerleave="store.lit = ''"
        >
          <td class="figures">{{ k + 1 }}</td>
          <td>
            <button class="plain" type="button" @click="at = k">{{ line(member, k).name }}</button>
          </td>
          <td><FigureText :text="line(member, k).gap" /></td>
          <td><FigureText :text="line(member, k).long" /></td>
          <td><FigureText :text="line(member, k).read" /></td>
          <td>
            <button
              class="plain word"
              type="button"
              :aria-label="`Take ${k + 1} away`"
              @click.stop="drop(member.id)"
            >
              away
            </button>
          </td>
        </tr>
      </tbody>
    </v-table>
    <div v-if="store.plan?.counts.length" class="figs">
      <WhyFigure v-for="figure in store.plan.counts" :key="figure.key" :figure="figure" />
    </div>
    <template v-if="one">
      <DocumentForm :base="`members.${here}`" :rows="rows" :across="4" />
      <p v-if="part?.coplanar.length" class="quiet">
        Lies in one plane with {{ part.coplanar.join(', ') }}: these can go together as one frame.
      </p>
      <div class="figs">
        <WhyFigure v-for="figure in figures" :key="figure.key" :figure="figure" />
      </div>
    </template>
  </section>
</template>

<style scoped>
tbody tr {
  cursor: pointer;
}
.asking {
  border-left: 6px solid var(--caution);
  padding-left: 8px;
}
.members {
  display: grid;
  gap: 0.5rem;
  border-top: 1px solid var(--line);
  padding-top: 0.4rem;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.9rem;
  font-size: 0.92rem;
}
.figs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  column-gap: 1.5rem;
}
.quiet {
  font-size: 0.88rem;
}
</style>
