<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import type { Fault } from '../api/types'
import { stepped } from './step'

/**
 * A field that takes the maker's own notation. It shows what the server read back; while its fault
 * stands, what was typed stays in it. The label stands above, whether anything is in it yet or not:
 * in the field it would be cut where the field is short, for as long as an answer takes.
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
    /** Whether what was typed last is on its way: what is read back meanwhile is of something older. */
    busy?: boolean
    /** What is cautioned about what stands here: marked, and said while the field has the keys. */
    caution?: string
    /** Whether what was typed last waits for a workshop that does not answer; not by default. */
    waiting?: boolean
    /** Gives anything that is new with every answer, so that "450" is shown as "450 mm" again. Asked for,
     * not handed over: a field whose own words stay the same is not drawn anew with every answer. */
    stamp?: () => unknown
  }>(),
  { fault: undefined, hint: '', caution: '', waiting: false, busy: false, stamp: undefined },
)
const emit = defineEmits<{
  /** What was typed, on Enter or on leaving; whether it is being turned, a step at a time. */
  commit: [typed: string, turning: boolean]
}>()

const WAITS = 'waits: sent as soon as the workshop answers'
const typed = ref(props.text)
/** Whether something was typed that has not been sent yet. */
const fresh = ref(false)
const wrong = computed(() => props.fault?.said ?? '')

// Whatever was read back is shown, unless something newer is being typed, is still to be mended or is on
// its way: a fault that goes because something else was typed is no answer to that.
watch(
  () => [props.text, props.fault, props.stamp?.(), props.waiting, props.busy],
  ([text, fault, stamp], [hadText, hadFault, hadStamp]) => {
    if (text !== hadText || stamp !== hadStamp) answered = true
    if (props.waiting || props.busy || (hadFault && !fault && !answered)) return
    sent = false
    if (fresh.value || props.fault) return
    typed.value = props.text
    // Entered but not typed into yet: what is typed next must still replace the whole figure.
    if (entered && entered === document.activeElement) void nextTick(() => entered?.select())
  },
)

let entered: HTMLInputElement | null = null
function enter(event: FocusEvent): void {
  entered = event.target as HTMLInputElement
  entered.select()
}

/** Whether what stands in the field was sent and is not answered yet: it stays there until then. */
let sent = false
/** Whether anything was read back since. */
let answered = true
function commit(): void {
  const changed = fresh.value && (typed.value.trim() !== props.text || props.fault)
  fresh.value = false
  if (changed) {
    sent = true
    answered = false
    emit('commit', typed.value, false)
  } else if (!props.fault && !sent) typed.value = props.text
}
/** The value a step up or down, sent at once: the figures follow. */
function step(event: KeyboardEvent | WheelEvent, way: 1 | -1): void {
  const next = stepped(typed.value, way, event.shiftKey)
  if (next === null) return
  event.preventDefault()
  fresh.value = false
  sent = true
  answered = false
  typed.value = next
  emit('commit', next, true)
}
/** Only the field that has the keys is turned: a page that is scrolled under the pointer changes nothing. */
function wheel(event: WheelEvent): void {
  if (event.target === document.activeElement && event.deltaY)
    step(event, event.deltaY < 0 ? 1 : -1)
}
/** The keys go back to the bench: the next letter is none of the field's. */
function leave(event: KeyboardEvent): void {
  ;(event.target as HTMLInputElement).blur()
}
function enterKey(event: KeyboardEvent): void {
  commit()
  leave(event)
}
function back(event: KeyboardEvent): void {
  fresh.value = false
  typed.value = props.text
  leave(event)
}
</script>

<template>
  <v-text-field
    v-model="typed"
    :label="label"
    :class="{ cautioned: caution && !wrong }"
    :hint="waiting ? WAITS : caution || hint"
    :persistent-hint="waiting || (!!hint && !caution)"
    :title="caution || undefined"
    :error-messages="wrong"
    persistent-placeholder
    autocomplete="off"
    spellcheck="false"
    :data-fresh="fresh || undefined"
    :data-waiting="waiting || undefined"
    @update:model-value="fresh = true"
    @focus="enter"
    @blur="commit"
    @keydown.up="step($event, 1)"
    @keydown.down="step($event, -1)"
    @wheel="wheel"
    @keydown.enter="enterKey"
    @keydown.esc="back"
  />
</template>

<style scoped>
.cautioned :deep(.v-field__outline) {
  --v-field-border-width: 2px;
  --v-field-border-opacity: 1;
  color: var(--caution);
}
</style>
