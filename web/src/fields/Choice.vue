<script setup lang="ts">
import { ref, useId, watch } from 'vue'

/** A choice between a few words, all of them seen at once. */
const props = defineProps<{
  /** Name of the choice. */
  label: string
  /** The words to choose from. */
  items: { value: string; title: string }[]
  /** The one chosen. */
  value: string
}>()
const group = useId()
const emit = defineEmits<{ /** Another one was chosen. */ choose: [value: string] }>()
const root = ref<HTMLElement>()

/** The choice shows what holds, not what was pressed: the answer may be no, or come later. */
function settle(): void {
  for (const input of root.value?.querySelectorAll('input') ?? [])
    input.checked = input.value === props.value
}
watch(() => [props.value, props.items], settle, { flush: 'post' })

/** What was pressed last: while its answer is out, going back to what holds is a choice too. */
let asked = ''
watch(
  () => props.value,
  (value) => (asked = value),
  { immediate: true },
)

const NEXT: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }
/** Arrows look along the words; space or Enter chooses: nothing is worked out on the way. */
function move(event: KeyboardEvent): void {
  const all = [...(root.value?.querySelectorAll('input') ?? [])]
  const here = event.target as HTMLInputElement
  const step = NEXT[event.key]
  if (event.key === 'Enter') press(here.value)
  else if (step) all[(all.indexOf(here) + step + all.length) % all.length]?.focus()
  else return
  event.preventDefault()
}

function press(value: string): void {
  if (value !== props.value || asked !== props.value) emit('choose', value)
  asked = value
  setTimeout(settle)
}
</script>

<template>
  <div ref="root" class="choice" role="radiogroup" :aria-label="label">
    <span class="legend" aria-hidden="true">{{ label }}</span>
    <label v-for="item in items" :key="item.title" :class="{ on: item.value === value }">
      <input
        type="radio"
        :name="group"
        :value="item.value"
        :checked="item.value === value"
        @click="press(item.value)"
        @keydown="move"
      />
      {{ item.title }}
    </label>
  </div>
</template>

<style scoped>
.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  align-items: baseline;
}
.legend {
  font-size: 0.84rem;
  opacity: 0.85;
  padding: 4px 0;
}
label {
  position: relative;
  min-width: 24px;
  text-align: center;
  padding: 3px 0;
  font-size: 0.92rem;
  cursor: pointer;
  border-bottom: 2px solid transparent;
}
label.on {
  border-color: var(--ink);
  font-weight: 650;
}
input {
  position: absolute;
  opacity: 0;
  inset: 0;
  cursor: pointer;
}
label:focus-within {
  outline: 3px solid var(--measured);
}
</style>
