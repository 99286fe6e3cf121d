<script setup lang="ts">
import { computed } from 'vue'

import { usePiece } from '../piece/store'
import TypedField from './TypedField.vue'

/** A typed field of the open piece. */
const props = defineProps<{
  /** Name of the field. */
  label: string
  /** Its place in the piece, dotted. */
  path: string
  /** A word of help under it; none by default. */
  hint?: string
}>()
const store = usePiece()
const text = computed(() => store.chosen[props.path]?.text ?? '')
const waiting = computed(() => store.status === 'away' && store.waits(props.path))
const fault = computed(() => store.faults[props.path])
</script>

<template>
  <TypedField
    :label="label"
    :text="text"
    :fault="fault"
    :hint="hint ?? ''"
    :waiting="waiting"
    :stamp="store.plan"
    :data-field="path"
    @commit="(typed, turning) => store.set(path, typed, turning)"
  />
</template>
