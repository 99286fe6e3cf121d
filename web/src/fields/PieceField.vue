<script setup lang="ts">
import { computed } from 'vue'

import { usePiece } from '../piece/store'
import { published } from './published'
import TypedField from './TypedField.vue'

/** A typed field of the open piece. */
const props = defineProps<{
  /** Name of the field; what the core calls it where none is given. */
  label?: string
  /** Its place in the piece, dotted. */
  path: string
  /** A word of help under it; none by default. */
  hint?: string
}>()
const store = usePiece()
const name = computed(() => props.label ?? published(store.piece, '', props.path).label)
const text = computed(() => store.chosen[props.path]?.text ?? '')
const waiting = computed(() => store.status === 'away' && store.waits(props.path))
/** What the piece is cautioned about that this field changes. */
const caution = computed(() => {
  const found = (store.plan?.findings ?? []).find(
    (one) => one.level !== 'note' && bears(one.field, props.path),
  )
  return found ? `${found.text} ${found.mend}` : ''
})
/** Whether a caution about one place of the piece is about this field: its own, or its part's. */
function bears(about: string, path: string): boolean {
  return about === path || (about.split('.').length > 2 && path.startsWith(`${about}.`))
}
const fault = computed(() => store.faults[props.path])
const busy = computed(() => store.waits(props.path))
const stamp = (): unknown => store.plan
function set(typed: string, turning: boolean): void {
  store.set(props.path, typed, turning)
}
</script>

<template>
  <TypedField
    :label="name"
    :text="text"
    :fault="fault"
    :hint="hint ?? ''"
    :waiting="waiting"
    :busy="busy"
    :caution="caution"
    :stamp="stamp"
    :data-field="path"
    @commit="set"
  />
</template>
