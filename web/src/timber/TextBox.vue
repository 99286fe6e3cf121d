<script setup lang="ts">
import { computed, useId } from 'vue'

import type { Fault } from '../api/types'

/** A field of a form that is sent as a whole: what is typed stays as typed until it is sent. */
const props = defineProps<{
  /** Name of the field. */
  label: string
  /** What is wrong with it, if anything. */
  fault?: Fault | undefined
  /** The id of a list of words to choose from; none by default. */
  list?: string
  /** Whether figures are typed; not by default. */
  figures?: boolean
  /** Whether the label is for the ear alone: a column has its head; not by default. */
  bare?: boolean
}>()
const id = useId()
const typed = defineModel<string>({ required: true })
const emit = defineEmits<{ /** Enter was pressed. */ enter: [] }>()
const wrong = computed(() => props.fault?.said ?? '')
</script>

<template>
  <div class="box" :class="{ wrong, bare }">
    <label v-if="!bare" :for="id">{{ label }}</label>
    <input
      :id="id"
      v-model="typed"
      :aria-label="bare ? label : undefined"
      :list="list"
      :class="{ figures }"
      autocomplete="off"
      spellcheck="false"
      maxlength="200"
      :aria-invalid="wrong !== ''"
      :aria-describedby="wrong ? `${id}-said` : undefined"
      @keydown.enter.prevent="emit('enter')"
    />
    <span v-if="wrong" :id="`${id}-said`" class="said" role="alert">{{ wrong }}</span>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 1px;
  align-content: start;
  font-size: 0.88rem;
  min-width: 0;
}
input {
  font: inherit;
  font-size: 1rem;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  padding: 5px 7px;
  min-width: 0;
  width: 100%;
  min-height: 32px;
  box-sizing: border-box;
}
input.figures {
  font-family: var(--mono);
}
.wrong input {
  border-color: var(--cut);
}
.said {
  color: var(--cut);
  font-weight: 600;
}
@media (max-width: 600px) {
  input {
    min-height: 44px;
  }
}
</style>
