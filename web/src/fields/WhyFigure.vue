<script setup lang="ts">
import { nextTick, ref } from 'vue'

import type { Figure } from '../api/types'
import FigureText from './FigureText.vue'

/** A figure that answers "why?": press it for the formula and what went in. */
defineProps<{
  /** The figure with its working. */
  figure: Figure
  /** A shorter name than its own; its own by default. */
  label?: string
  /** Only the question, where the figure itself stands beside it; no by default. */
  bare?: boolean
}>()
const button = ref<HTMLElement>()
/** There are many figures, and few are asked why: what answers is there from the first time on. */
const asked = ref(false)
const open = ref(false)
async function why(): Promise<void> {
  asked.value = true
  await nextTick()
  open.value = !open.value
}
</script>

<template>
  <div class="row">
    <span class="what">{{ bare ? figure.note : (label ?? figure.label) }}</span>
    <span class="value">
      <FigureText v-if="!bare" :text="figure.quantity.text" />
      <button
        ref="button"
        class="plain word why"
        type="button"
        aria-haspopup="dialog"
        :aria-expanded="open"
        :aria-label="`Why ${figure.label}?`"
        @click="why"
      >
        <span class="mark" aria-hidden="true">?</span><span class="word-why">why?</span>
      </button>
      <v-menu
        v-if="asked"
        v-model="open"
        :activator="button"
        :open-on-click="false"
        :close-on-content-click="false"
        location="bottom end"
      >
        <div class="working" role="dialog" :aria-label="`Working of ${figure.label}`">
          <h3>{{ figure.label }}: <FigureText :text="figure.quantity.text" /></h3>
          <p class="figures formula">{{ figure.formula }}</p>
          <dl>
            <div v-for="input in figure.inputs" :key="input.symbol + input.name" class="row">
              <dt>
                <span class="figures">{{ input.symbol }}</span> {{ input.name }}
              </dt>
              <dd><FigureText :text="input.text" /></dd>
            </div>
          </dl>
          <p v-if="figure.note" class="quiet">{{ figure.note }}</p>
          <p class="quiet">
            Unrounded <span class="figures">{{ figure.quantity.value.toFixed(3) }}</span>
            {{
              figure.quantity.unit === 'deg'
                ? 'degrees'
                : figure.quantity.unit === 'mm'
                  ? 'mm'
                  : ''
            }}; nothing is rounded on the way.
          </p>
        </div>
      </v-menu>
    </span>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  justify-content: space-between;
  gap: 0.75rem;
  align-items: baseline;
  padding: 0;
}
.what,
dt {
  font-size: 1rem;
}
.value,
dd {
  text-align: right;
  white-space: nowrap;
}
/* A quiet mark until it is pointed at or focused. */
.why {
  font-size: 0.8rem;
  margin-left: 0.35rem;
  min-width: 2.2rem;
  text-align: left;
  text-decoration: none;
}
.mark {
  opacity: 0.72;
}
.word-why {
  display: none;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.row:hover > .value .mark,
.why:focus-visible .mark {
  display: none;
}
.row:hover > .value .word-why,
.why:focus-visible .word-why {
  display: inline;
}
.working {
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 0.9rem 1rem;
  display: grid;
  gap: 0.5rem;
  max-width: 26rem;
}
.formula {
  font-size: 1.05rem;
  white-space: normal;
}
</style>
