<script setup lang="ts">
import { computed, ref } from 'vue'

import { api, ask } from '../api/client'
import type { ReadingEvent } from '../api/types'
import { usePiece } from '../piece/store'
import { mostOf } from '../fields/published'

/** Behind one answered reading: who, when, with what, a note, what it was before; or take it back. */
const props = defineProps<{ /** Id of the proof. */ proof: string }>()
const store = usePiece()
const reading = computed(() => store.readings.find((r) => r.proof === props.proof))
const open = ref(false)
const past = ref<ReadingEvent[]>([])
const lost = ref(false)
const note = ref('')
const tool = ref('')

async function look(): Promise<void> {
  note.value = reading.value?.note ?? ''
  tool.value = reading.value?.tool ?? ''
  try {
    const params = {
      path: { id: store.id, proof: props.proof },
      query: { copy_number: store.copy },
    }
    past.value = await ask(api.GET('/api/pieces/{id}/readings/{proof}/history', { params }))
    lost.value = false
  } catch {
    lost.value = true
  }
}
async function keep(): Promise<void> {
  if (!reading.value) return
  await store.answer(props.proof, reading.value.typed, {
    note: note.value,
    tool: tool.value,
    keep: true,
  })
  open.value = false
}
async function back(): Promise<void> {
  await store.answer(props.proof, '')
  open.value = false
}
const when = (at: string): string =>
  new Date(at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false" @update:model-value="$event && look()">
    <template #activator="{ props: on }">
      <button v-bind="on" class="plain word more" type="button" :data-more="proof">
        {{ reading?.note ? 'noted' : 'more' }}
      </button>
    </template>
    <form class="behind" aria-label="Behind this reading" @submit.prevent="keep">
      <v-text-field
        v-model="tool"
        label="Read with"
        :maxlength="mostOf('Answer', 'tool', 'Sent')"
        data-reading-tool
      />
      <v-text-field
        v-model="note"
        label="Note"
        :maxlength="mostOf('Answer', 'note', 'Sent')"
        data-reading-note
      />
      <p class="do">
        <button class="plain word" type="submit">keep these</button>
        <button class="plain word" type="button" data-withdraw @click="back">
          take the reading back
        </button>
      </p>
      <p v-if="lost" role="alert">The workshop does not answer: its history is not seen now.</p>
      <ol>
        <li v-for="(event, k) in past" :key="k">
          <span class="figures">{{ event.typed }}</span> {{ event.what }} by
          {{ event.by ?? 'somebody' }}, {{ when(event.at) }}
          <span v-if="event.tool" class="quiet">with {{ event.tool }}</span>
          <span v-if="event.note" class="quiet">“{{ event.note }}”</span>
        </li>
      </ol>
    </form>
  </v-menu>
</template>

<style scoped>
.more {
  font-size: 0.84rem;
}
.behind {
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 0.9rem 1rem;
  display: grid;
  gap: 0.5rem;
  width: min(26rem, 92vw);
}
.do {
  display: flex;
  gap: 1.2rem;
}
ol {
  list-style: none;
  font-size: 0.88rem;
  max-height: 12rem;
  overflow-y: auto;
}
</style>
