<script setup lang="ts">
import { ref } from 'vue'

import { smaller } from '../piece/smaller'
import { useBuild } from './store'

/** A photograph for the log; a phone takes one, another machine chooses one. */
const props = defineProps<{ /** Key of the step it is taken at; empty for none. */ step: string }>()
const build = useBuild()
const input = ref<HTMLInputElement>()

async function choose(): Promise<void> {
  const file = input.value?.files?.[0]
  if (!file) return
  if (input.value) input.value.value = ''
  const blob = await smaller(file)
  if (!blob) {
    build.said = 'That is no picture: choose a photograph (JPEG, PNG or WebP).'
    return
  }
  const coded = await base64(blob)
  const body = { step: props.step, says: '', copy_number: build.copy, picture: coded }
  build.did({ what: 'photo', body })
  build.said = 'The photograph is kept in the log.'
}

async function base64(blob: Blob): Promise<string> {
  const url = await new Promise<string>((done) => {
    const reader = new FileReader()
    reader.onload = () => done(reader.result as string)
    reader.readAsDataURL(blob)
  })
  return url.slice(url.indexOf(',') + 1)
}
</script>

<template>
  <label class="big thin photo">
    photograph
    <input
      ref="input"
      type="file"
      accept="image/jpeg,image/png,image/webp"
      capture="environment"
      data-photo
      @change="choose"
    />
  </label>
</template>

<style scoped>
.photo {
  position: relative;
  display: inline-flex;
  align-items: center;
}
.photo:focus-within {
  outline: 3px solid var(--measured);
}
input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
  width: 100%;
}
</style>
