<script setup lang="ts">
import { computed } from 'vue'

import type { SetUp } from '../api/types'
import Drawing from '../drawing/Drawing.vue'
import FigureText from '../fields/FigureText.vue'
import WhyFigure from '../fields/WhyFigure.vue'
import { usePiece } from '../piece/store'
import ProofList from './ProofList.vue'
import WhichWay from './WhichWay.vue'

/** One set-up: what is done to which legs, the tool at its real angle, the setting, the proof. */
const props = defineProps<{ /** The card. */ card: SetUp }>()
const store = usePiece()
const picture = computed(() => store.drawings?.pictures[props.card.id])
const dial = computed(() => props.card.dials[0])
const lights = computed(() =>
  props.card.legs[0] ? `leg.${props.card.legs[0]}` : (props.card.parts[0] ?? ''),
)
const reads = computed(() => {
  const d = dial.value
  if (!d) return ''
  return `on a scale that reads ${d.at_square} at square and counts ${d.counts}`
})
/** At the boring cards the figure is the hole's lean. */
const leans = computed(
  () => props.card.station === 'boring' && props.card.angle.quantity.unit === 'deg',
)
const marked = computed(() => {
  const d = dial.value
  return d && d.mark.text !== d.reading.text ? d.mark.text : ''
})
</script>

<template>
  <article
    class="card"
    :data-card="card.id"
    @pointerenter="store.lit = lights"
    @pointerleave="store.lit = ''"
  >
    <p v-if="store.status === 'away' && store.waiting" class="waits" role="status" data-waits>
      These figures wait: what you changed is worked out when the workshop answers.
    </p>
    <h2>{{ card.title }}: {{ card.tool.toLowerCase() }}</h2>
    <div class="upper">
      <div class="picture">
        <Drawing v-if="picture" :view="picture" :letter="12" />
      </div>
      <div class="setting">
        <p>{{ card.setting_name }}</p>
        <p class="big" data-setting><FigureText v-if="card.setting" :text="card.setting.text" /></p>
        <p v-for="extra in card.dials.slice(1)" :key="extra.name" class="second">
          {{ extra.name }} <FigureText :text="extra.reading.text" />
        </p>
        <p class="quiet small">{{ reads }}</p>
        <p v-if="marked" class="quiet small">nearest mark <FigureText :text="marked" /></p>
        <div class="figs">
          <WhyFigure v-if="leans" :figure="card.angle" label="True lean" />
          <WhyFigure v-else :figure="card.angle" />
        </div>
      </div>
    </div>
    <p v-if="!card.in_reach" class="reach" role="note">
      <strong>Past its reach.</strong> {{ card.reach_note }}
    </p>
    <WhichWay class="which" :lines="card.which_way" />
    <ul class="steps">
      <li v-for="step in card.steps" :key="step">{{ step }}</li>
    </ul>
    <div v-if="card.jig.length" class="figs">
      <WhyFigure v-for="figure in card.jig" :key="figure.key" :figure="figure" />
    </div>
    <p v-for="caution in card.cautions" :key="caution" class="care">{{ caution }}</p>
    <ProofList :ids="card.proofs" :checks="card.checks" />
  </article>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.4rem;
}
.upper {
  display: grid;
  grid-template-columns: 290px minmax(0, 1fr);
  gap: 0.8rem;
}
.setting {
  container-type: inline-size;
}
.picture {
  height: 196px;
  border: 1px solid var(--line);
  background: var(--paper);
}
.big {
  /* A long figure grows smaller rather than out of its card. */
  font-size: min(4rem, 21cqi);
  line-height: 1.05;
  letter-spacing: -0.02em;
  font-weight: 700;
  color: var(--cut);
}
.second {
  font-size: 1.15rem;
  font-weight: 650;
}
.small {
  font-size: 0.84rem;
}
.which {
  font-size: 1.06rem;
  font-weight: 600;
}
.steps {
  padding-left: 1.1rem;
  font-size: 1rem;
}
.waits {
  border-left: 6px solid var(--measured);
  padding-left: 8px;
  font-weight: 600;
}
.reach {
  border-left: 6px solid var(--caution);
  padding-left: 8px;
}
.care {
  font-size: 1rem;
  border-left: 6px double var(--caution);
  padding-left: 8px;
}
@media (max-width: 600px) {
  .upper {
    grid-template-columns: minmax(0, 1fr);
  }
}
.big .figures {
  font-family: var(--text);
}
</style>
