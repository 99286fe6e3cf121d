<script setup lang="ts">
import { ref } from 'vue'

/** A word to press for choosing a file; the same one can be chosen again. */
defineProps<{
  /** What is chosen, in a word or two. */
  label: string
  /** Which files, as browsers name them: ".csv,text/csv". */
  accept: string
}>()
const emit = defineEmits<{ /** A file was chosen. */ pick: [file: File] }>()
defineOptions({ inheritAttrs: false })
const input = ref<HTMLInputElement>()
function picked(): void {
  const file = input.value?.files?.[0]
  if (input.value) input.value.value = ''
  if (file) emit('pick', file)
}
</script>

<template>
  <label class="word file">
    {{ label }}
    <input ref="input" type="file" :accept="accept" v-bind="$attrs" @change="picked" />
  </label>
</template>

<style scoped>
.file {
  display: inline-block;
  position: relative;
  cursor: pointer;
  min-height: 24px;
  line-height: 24px;
}
.file input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
  width: 100%;
}
.file:focus-within {
  outline: 3px solid var(--measured);
}
@media (max-width: 600px) {
  .file {
    min-height: 44px;
    line-height: 44px;
  }
}
</style>
