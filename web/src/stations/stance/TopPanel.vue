<script setup lang="ts">
import { computed } from 'vue'

import Choice from '../../fields/Choice.vue'
import DocumentField from '../../fields/DocumentField.vue'
import DocumentForm from '../../fields/DocumentForm.vue'
import { mostOf, wordsOf } from '../../fields/published'
import { usePiece } from '../../piece/store'
import PhotoPanel from './PhotoPanel.vue'
import { vStands } from '../../fields/stands'

/** Height, lean and the top. */
const store = usePiece()
const top = computed(() => store.piece?.top)
const KINDS = wordsOf('Top', 'outline')
const FIELDS: Record<string, string[]> = {
  round: ['diameter'],
  oval: ['length', 'width'],
  rectangle: ['length', 'width', 'corner'],
  rounded_triangle: ['side', 'arc', 'first'],
  d: ['length', 'width', 'straight'],
  shield: ['length', 'width', 'bow', 'corner'],
  drawn: [],
}

/** Another outline of about the same size. */
function become(kind: string): void {
  store.restate({ what: 'outline', to: kind })
}
/** A corner more between every two, where the edge wants following more closely. */
const finer = (): void => store.restate({ what: 'corners', to: 'finer' })
const USES = wordsOf('Piece', 'use')
const MANY = ['make']
const toward = computed(() => String(store.piece?.lean?.toward ?? 90))
const SIDES = wordsOf('Lean', 'toward')
const UNDER = [{ value: 'none', title: 'nothing' }, ...wordsOf('Underfoot', 'kind')]
const NOTES = mostOf('Piece', 'notes')
/** What goes under the feet; another kind keeps the sizes that were typed. */
function putUnder(kind: string): void {
  store.set('underfoot', kind === 'none' ? null : { ...store.piece?.underfoot, kind })
}
</script>

<template>
  <section v-if="top" aria-label="Height and top">
    <div class="grid three">
      <DocumentField path="height" />
      <DocumentField path="lean.fall" />
      <v-select
        label="Falls"
        :items="SIDES"
        :model-value="toward"
        data-field="lean.toward"
        @update:model-value="store.set('lean.toward', Number($event))"
      />
    </div>
    <div class="under">
      <Choice
        label="Under the feet:"
        :items="UNDER"
        :value="store.piece?.underfoot?.kind ?? 'none'"
        @choose="putUnder"
      />
      <template v-if="store.piece?.underfoot">
        <DocumentField path="underfoot.thickness" />
        <DocumentField path="underfoot.across" />
      </template>
    </div>
    <Choice label="Top:" :items="KINDS" :value="top.outline.kind ?? 'round'" @choose="become" />
    <div class="grid" :class="`of${(FIELDS[top.outline.kind ?? 'round']?.length ?? 1) + 1}`">
      <DocumentField
        v-for="name in FIELDS[top.outline.kind ?? 'round']"
        :key="name"
        :path="`top.outline.${name}`"
      />
      <DocumentField path="top.thickness" />
      <p v-if="store.faults['top.outline']" class="wrong" role="alert">
        {{ store.faults['top.outline'].said }}
      </p>
    </div>
    <p v-if="top.outline.kind === 'drawn'" class="line">
      <span>{{ top.outline.corners.length }} corners, dragged in the plan</span>
      <button class="plain word" type="button" data-more-corners @click="finer">
        more corners
      </button>
    </p>
    <PhotoPanel v-if="top.outline.kind === 'drawn'" />
    <details>
      <summary>
        grain, use, how many, notes<template v-if="store.piece?.notes"> (there are some)</template>
      </summary>
      <div class="grid">
        <DocumentField label="Grain, off the left-right line" path="top.grain" />
        <v-select
          label="Use"
          :items="USES"
          :model-value="store.piece?.use"
          @update:model-value="store.set('use', $event)"
        />
        <DocumentForm :rows="MANY" :across="1" />
        <label class="notes">
          Notes
          <textarea
            v-stands="store.piece?.notes"
            rows="3"
            :maxlength="NOTES"
            @change="store.set('notes', ($event.target as HTMLTextAreaElement).value)"
          />
        </label>
      </div>
    </details>
  </section>
</template>

<style scoped src="./panel.css"></style>

<style scoped>
.under {
  display: grid;
  grid-template-columns: minmax(0, 2fr) 1fr 1fr;
  gap: 0.4rem 1rem;
  align-items: center;
}
.under > :only-child {
  grid-column: 1 / -1;
}
</style>
