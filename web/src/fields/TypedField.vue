<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Fault } from '../api/types'

/**
 * A field that takes the maker's own notation. It shows what the server read back; while its fault
 * stands, what was typed stays in it.
 */
const props = withDefaults(
  defineProps<{
    /** Name of the field. */
    label: string
    /** What it reads now, in the maker's units. */
    text: string
    /** What is wrong with what was typed last, if anything. */
    fault?: Fault | undefined
    /** A word of help under the field; none by default. */
    hint?: string
  }>(),
  { fault: undefined, hint: '' },
)
const emit = defineEmits<{
  /** What was typed, on Enter or on leaving. */ commit: [typed: string]
}>()

const typed = ref(props.text)
const busy = ref(false)
watch(
  () => props.text,
  (text) => {
    if (!busy.value && !props.fault) typed.value = text
  },
)
const wrong = computed(() => (props.fault ? `${props.fault.allowed}. ${props.fault.do}` : ''))

function enter(event: Event): void {
  busy.value = true
  ;(event.target as HTMLInputElement).select()
}
function commit(): void {
  if (typed.value.trim() !== props.text || props.fault) emit('commit', typed.value)
}
function leave(): void {
  busy.value = false
  commit()
}
function back(): void {
  typed.value = props.text
}
// A figure understood after Enter is shown as it was read, even while the field is still entered.
watch(
  () => [props.text, props.fault] as const,
  ([text, fault], [, before]) => {
    if (!fault && (before || !busy.value)) typed.value = text
  },
)
</script>

<template>
  <v-text-field
    v-model="typed"
    :label="label"
    :hint="hint"
    :persistent-hint="!!hint"
    :error-messages="wrong"
    autocomplete="off"
    spellcheck="false"
    @focus="enter"
    @blur="leave"
    @keydown.enter="commit"
    @keydown.esc="back"
  />
</template>
