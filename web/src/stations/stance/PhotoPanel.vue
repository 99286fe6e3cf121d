<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'

import DocumentField from '../../fields/DocumentField.vue'
import { usePhoto } from '../../piece/photo'
import { usePiece } from '../../piece/store'

/** A photograph of the slab or slice, laid under its drawn outline to drag the corners over. */
const store = usePiece()
const photo = usePhoto()
const input = ref<HTMLInputElement>()
onMounted(photo.look)
watch(() => store.id, photo.look)

async function chosen(): Promise<void> {
  const file = input.value?.files?.[0]
  if (file) await photo.choose(file)
  if (input.value) input.value.value = ''
}
</script>

<template>
  <div class="photo" data-photo>
    <p class="line">
      <button class="plain word" type="button" data-photo-choose @click="input?.click()">
        {{ photo.laid ? 'another photograph' : 'lay a photograph under it' }}
      </button>
      <button
        v-if="photo.laid"
        class="plain word"
        type="button"
        data-photo-drop
        @click="photo.drop()"
      >
        take it away
      </button>
      <button
        v-else-if="photo.kept"
        class="plain word"
        type="button"
        data-photo-again
        @click="photo.lay()"
      >
        lay the last one again
      </button>
    </p>
    <input
      ref="input"
      type="file"
      accept="image/jpeg,image/png,image/webp"
      hidden
      aria-label="A photograph of the wood"
      @change="chosen"
    />
    <p v-if="photo.wrong" class="wrong" role="alert">{{ photo.wrong }}</p>
    <template v-if="photo.laid">
      <p class="hint quiet">Taken square from above, a rule beside the wood to measure by.</p>
      <div class="grid of4">
        <DocumentField path="top.outline.photo.width" />
        <DocumentField path="top.outline.photo.x" />
        <DocumentField path="top.outline.photo.y" />
        <DocumentField path="top.outline.photo.turn" />
      </div>
    </template>
  </div>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
.photo {
  display: grid;
  gap: 0.3rem;
}
.hint {
  font-size: 0.84rem;
}
</style>
