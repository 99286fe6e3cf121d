<script setup lang="ts">
import { computed } from 'vue'

import type { MemberPart } from '../../api/types'
import FigureText from '../../fields/FigureText.vue'
import WhyFigure from '../../fields/WhyFigure.vue'
import { usePiece } from '../../piece/store'
import ChangesPanel from '../ChangesPanel.vue'
import ProofList from '../ProofList.vue'

/** Fit it dry, then read: what each stretcher is cut to comes from what is really there. */
const store = usePiece()
const members = computed(() => store.plan?.members ?? [])
/** What is asked of a stretcher, in the order it is taken, by kind and end. */
function asked({ ends }: MemberPart): [string, string][] {
  return [
    ['gap', 'clear gap'],
    ['read,1', `angle, ${ends[0].into}`],
    ['read,2', `angle, ${ends[1].into}`],
    ['depth,1', `socket, ${ends[0].into}`],
    ['depth,2', `socket, ${ends[1].into}`],
    ['rail', 'as cut'],
  ]
}
/** Its proofs' ids, and what their fields are called. */
function labels(member: MemberPart): Record<string, string> {
  const mine = (store.plan?.proofs ?? []).filter((p) => p.of[0] === member.id)
  const found = asked(member).map(([kind, short]) => {
    const proof = mine.find((p) => [p.kind, ...p.of.slice(1)].join() === kind)
    return proof ? [proof.id, short] : []
  })
  return Object.fromEntries(found.filter((one) => one.length)) as Record<string, string>
}
</script>

<template>
  <section class="fit" aria-label="Fit dry and read">
    <p class="how">
      Legs in their own holes, dry. A straight stick on both marks; the gauge along the leg, in the
      plane of the two, on the acute side. Gaps between two sticks slid apart; sockets at their
      obtuse wall.
    </p>
    <div
      v-for="member in members"
      :key="member.number"
      class="one"
      :data-fit="member.number"
      @pointerenter="store.lit = `member.${member.number}`"
      @pointerleave="store.lit = ''"
    >
      <h2>
        {{ member.name }}: cut to <FigureText class="big" :text="member.total.quantity.text" />{{
          ' '
        }}
        <span class="quiet">{{
          member.as_built ? `as measured; ${member.planned} planned` : 'as planned'
        }}</span>
      </h2>
      <ProofList
        :ids="Object.keys(labels(member))"
        :labels="labels(member)"
        :checks="[]"
        compact
        narrow
      />
      <WhyFigure :figure="member.total" label="Why this length" />
    </div>
    <ChangesPanel of="member" />
  </section>
</template>

<style scoped>
.fit {
  display: grid;
  gap: 0.6rem;
}
.one {
  border-top: 1.5px solid var(--ink);
  padding-top: 0.3rem;
}
h2 {
  font-size: 1.02rem;
}
.big {
  font-size: 1.35rem;
  color: var(--cut);
}
h2 .quiet {
  font-size: 0.84rem;
  font-weight: 400;
}
.how {
  font-size: 0.9rem;
}
.one :deep(.proofs) {
  border-top: 0;
}
</style>
