<script setup lang="ts">
/** A choice between a few words, all of them seen at once. */
defineProps<{
  /** Name of the choice. */
  label: string
  /** The words to choose from. */
  items: { value: string; title: string }[]
  /** The one chosen. */
  value: string
}>()
const emit = defineEmits<{ /** Another one was chosen. */ choose: [value: string] }>()
</script>

<template>
  <fieldset class="choice">
    <legend>{{ label }}</legend>
    <label v-for="item in items" :key="item.value" :class="{ on: item.value === value }">
      <input
        type="radio"
        :name="label"
        :value="item.value"
        :checked="item.value === value"
        @change="emit('choose', item.value)"
      />
      {{ item.title }}
    </label>
  </fieldset>
</template>

<style scoped>
.choice {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}
legend {
  font-size: 0.8rem;
  opacity: 0.85;
  padding: 0;
}
label {
  position: relative;
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
