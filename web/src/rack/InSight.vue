<script setup lang="ts">
import { useIntersectionObserver } from '@vueuse/core'
import { ref, watch } from 'vue'

/** A place that says when it comes into sight, and again when what it shows has changed. */
const props = defineProps<{ /** What is shown: any text that changes with it. */ stamp: string }>()
const emit = defineEmits<{ /** It can be seen, or nearly. */ seen: [] }>()
const place = ref<HTMLElement | null>(null)
const near = ref(false)
useIntersectionObserver(place, ([one]) => (near.value = one?.isIntersecting ?? false), {
  rootMargin: '400px',
})
watch(
  () => [near.value, props.stamp],
  () => near.value && emit('seen'),
)
</script>

<template>
  <div ref="place"><slot /></div>
</template>
