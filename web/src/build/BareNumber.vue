<script setup lang="ts">
import { ref, watch } from 'vue'

/** A plain number that is no length and no angle: degrees of the air, hours, money. */
const props = defineProps<{
  /** What it is. */
  label: string
  /** What it is now; null for none. */
  value: number | null
  /** The least and the most it can be. */
  least: number
  most: number
  /** Whether it must be above the least; not by default. */
  above?: boolean
}>()
const bears = (value: number): boolean =>
  (props.above ? value > props.least : value >= props.least) && value <= props.most
const emit = defineEmits<{
  /** Typed, on Enter or on leaving; null where it was emptied. */ commit: [value: number | null]
}>()
const typed = ref('')
const wrong = ref('')
watch(
  () => props.value,
  (value) => {
    typed.value = value === null ? '' : String(value)
    wrong.value = ''
  },
  { immediate: true },
)

function commit(): void {
  const text = typed.value.trim().replace(',', '.')
  const value = text === '' ? null : Number(text)
  if (value !== null && !bears(value)) {
    const from = props.above ? `above ${props.least} and at most` : `from ${props.least} to`
    wrong.value = `Type a number ${from} ${props.most}.`
    return
  }
  wrong.value = ''
  if (value !== props.value) emit('commit', value)
}
</script>

<template>
  <label class="number">
    <span>{{ label }}</span>
    <input
      v-model="typed"
      inputmode="decimal"
      maxlength="12"
      class="figures"
      :aria-invalid="wrong !== ''"
      @change="commit"
      @keydown.enter="commit"
    />
    <span v-if="wrong" class="wrong" role="alert">{{ wrong }}</span>
  </label>
</template>

<style scoped>
.number {
  display: grid;
  gap: 2px;
  align-content: end;
  font-size: 0.92rem;
}
input {
  font-size: 1.1rem;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  padding: 6px 8px;
  min-width: 0;
  width: 100%;
  box-sizing: border-box;
}
.wrong {
  color: var(--cut);
  font-weight: 600;
}
</style>
