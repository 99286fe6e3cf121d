<script setup lang="ts">
import OptionalForm from '../../fields/OptionalForm.vue'
import { usePiece } from '../../piece/store'

/** The arc that a piece between legs is sawn to, if it is. */
defineProps<{
  /** The piece's own path. */
  base: string
  /** Whether it is. */
  on: boolean
}>()
const store = usePiece()
const ARC = ['arc.rise', 'arc.upper']
</script>

<template>
  <OptionalForm
    label="sawn to an arc"
    :on="on"
    :base="base"
    :rows="ARC"
    :across="2"
    data-arc
    @want="store.set(`${base}.arc`, $event ? {} : null)"
  />
</template>
