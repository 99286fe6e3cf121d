<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'

import type { Station } from '../api/types'

/** The strip along the top of a piece: a notch for each station, filling as its proofs are answered. */
const props = defineProps<{
  /** The stations in the order of work. */
  stations: Station[]
  /** The one being looked at. */
  at: string
  /** Id of the piece. */
  piece: string
}>()

/** Stations whose steps are ticked, not proved. */
const TICKED = ['wood', 'glueup', 'finish']
function word(station: Station): string {
  if (station.name === 'log') return 'what happened'
  if (TICKED.includes(station.name))
    return station.proofs ? `${station.answered} of ${station.proofs} done` : ''
  if (!station.proofs) return 'as you like'
  const off = station.off ? `, ${station.off} off` : ''
  return `${station.answered} of ${station.proofs} proved${off}`
}
/** On a phone not all notches stand abreast: the one that is looked at does. */
const stick = ref<HTMLElement>()
watch(
  () => props.at,
  async () => {
    await nextTick()
    const here = stick.value?.querySelector<HTMLElement>('.here')
    if (here && stick.value) stick.value.scrollLeft = here.offsetLeft - stick.value.clientWidth / 2
  },
  { immediate: true },
)
function filled(station: Station): number {
  if (station.proofs) return station.answered / station.proofs
  return station.name === 'log' || TICKED.includes(station.name) ? 0 : 1
}
</script>

<template>
  <nav ref="stick" class="stick" aria-label="Stations of the piece">
    <svg class="ruler" aria-hidden="true">
      <defs>
        <pattern id="ruler" width="100" height="10" patternUnits="userSpaceOnUse">
          <path
            d="M0.5 0V9 M10.5 0V4 M20.5 0V4 M30.5 0V4 M40.5 0V4 M50.5 0V6 M60.5 0V4 M70.5 0V4 M80.5 0V4 M90.5 0V4"
          />
        </pattern>
      </defs>
      <rect width="100%" height="10" fill="url(#ruler)" />
    </svg>
    <RouterLink
      v-for="station in stations"
      :key="station.name"
      :to="`/piece/${piece}/${station.name}`"
      class="notch"
      :class="{ here: station.name === at, off: station.off > 0 }"
      :aria-current="station.name === at ? 'step' : undefined"
    >
      <svg viewBox="0 0 40 16" class="cut" aria-hidden="true">
        <path d="M0 1 H12 L20 13 L28 1 H40" />
        <clipPath :id="`fill-${station.name}`">
          <rect x="0" :y="13 - 12 * filled(station)" width="40" height="16" />
        </clipPath>
        <path class="fill" d="M12 1 L20 13 L28 1 Z" :clip-path="`url(#fill-${station.name})`" />
      </svg>
      <span class="title">{{ station.title }}</span>
      <span class="word quiet">{{ word(station) }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.ruler {
  position: absolute;
  inset: auto 0 0 0;
  width: 100%;
  height: 10px;
  transform: scaleY(-1);
  opacity: 0.45;
}
.stick {
  position: relative;
  display: flex;
  background: var(--wood);
  border-bottom: 1.5px solid var(--ink);
  padding: 0 1.25rem;
}
.notch {
  flex: 0 1 15rem;
  display: grid;
  grid-template-columns: 46px 1fr;
  grid-template-rows: auto auto;
  column-gap: 10px;
  color: inherit;
  text-decoration: none;
  padding: 0 0.5rem 0.6rem 0;
}
.cut {
  width: 46px;
  align-self: start;
}
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
.fill {
  fill: var(--measured);
  stroke: none;
}
.off .fill {
  fill: var(--cut);
}
.title {
  font-weight: 600;
  padding-top: 0.3rem;
}
.here .title {
  text-decoration: underline;
  text-decoration-thickness: 3px;
  text-underline-offset: 4px;
}
.word {
  grid-column: 1 / -1;
  font-size: 0.8rem;
  white-space: nowrap;
  text-decoration: none;
}
@media (max-width: 900px) {
  .stick {
    flex-wrap: wrap;
  }
  .notch {
    flex: 0 0 auto;
    padding-right: 1rem;
  }
}
/* On a phone it must leave room for what is read: all abreast, the notch over its name. */
@media (max-width: 600px) {
  .stick {
    display: grid;
    grid-auto-flow: column;
    grid-auto-columns: minmax(max-content, 1fr);
    padding: 0 4px 2px;
    overflow-x: auto;
  }
  .notch {
    grid-template-columns: 1fr;
    grid-template-rows: auto auto;
    justify-items: center;
    padding: 0;
    min-height: 46px;
  }
  .cut {
    width: 30px;
    grid-row: auto;
  }
  .title {
    font-size: 0.75rem;
    white-space: nowrap;
    padding: 0 3px 4px;
  }
  .word {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
</style>
