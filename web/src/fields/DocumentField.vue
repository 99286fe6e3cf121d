<script setup lang="ts">
import { computed } from 'vue'

import { useHost } from './host'
import { published } from './published'
import TypedField from './TypedField.vue'

/** A typed field of a document: the open piece, or what its page provides. */
const props = defineProps<{
  /** Name of the field; what the core calls it where none is given. */
  label?: string
  /** Its place in the document, dotted. */
  path: string
  /** A word of help under it; none by default. */
  hint?: string
}>()
const host = useHost()
const name = computed(
  () => props.label ?? published(host.document(), '', props.path, host.root).label,
)
const text = computed(() => host.text(props.path))
const fault = computed(() => host.fault(props.path))
const busy = computed(() => host.busy?.(props.path) ?? false)
const waiting = computed(() => host.waiting?.(props.path) ?? false)
const caution = computed(() => host.caution?.(props.path) ?? '')
function set(typed: string, turning: boolean): void {
  host.set(props.path, typed, turning)
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
    :stamp="host.stamp"
    :data-field="path"
    @commit="set"
  />
</template>
