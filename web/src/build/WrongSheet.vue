<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'

import { api, ask } from '../api/client'
import type { BuildStep, Rescue } from '../api/types'
import Choice from '../fields/Choice.vue'
import { usePiece } from '../piece/store'
import Sheet from '../Sheet.vue'
import { tried } from './asked'
import { useBuild } from './store'
import { mostOf } from '../fields/published'

/** It went wrong: on which leg or part, how it is saved, and what there is to say of it. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ /** The step it went wrong at. */ step: BuildStep }>()
const build = useBuild()
const store = usePiece()
const of = ref(props.step.units[0]?.of ?? '')
const ways = ref<Rescue[]>([])
const way = ref('')
const note = ref('')
const amount = ref('')
const other = ref('')
const said = ref('')
const chosen = computed(() => ways.value.find((one) => one.name === way.value))
const mates = computed(() => props.step.units.filter((unit) => unit.of !== of.value && unit.of))
const ready = computed(() => {
  if (!chosen.value) return false
  if (chosen.value.asks === 'length') return amount.value.trim() !== ''
  return chosen.value.asks !== 'leg' || other.value !== ''
})

const AWAY = 'The workshop does not answer: the usual ways out come when it does.'
async function look(): Promise<void> {
  const query = { step: props.step.key, of: of.value, copy_number: build.copy }
  const params = { path: { id: build.id }, query }
  const fetch = async () => {
    ways.value = await ask(api.GET('/api/pieces/{id}/build/rescues', { params }))
    if (!ways.value.some((one) => one.name === way.value)) way.value = ''
    said.value = ''
  }
  await tried(said, fetch, AWAY)
}
onMounted(() => void look())
watch(of, () => void look())

async function keep(): Promise<void> {
  open.value = false
  // What was read of it before comes before: it is put away with what was lost.
  await store.readingsSettled()
  build.did({
    what: 'wrong',
    body: {
      step: props.step.key,
      of: of.value,
      rescue: way.value,
      copy_number: build.copy,
      amount: amount.value,
      other: other.value,
      note: note.value.trim(),
    },
  })
}
</script>

<template>
  <Sheet v-model="open" wide="52rem">
    <h2>What went wrong: {{ step.title }}</h2>
    <Choice
      v-if="step.units.length > 1"
      label="On which"
      :items="step.units.map((unit) => ({ value: unit.of, title: unit.name }))"
      :value="of"
      @choose="of = $event"
    />
    <p v-if="said" role="status">{{ said }}</p>
    <v-radio-group v-model="way" aria-label="How it is saved">
      <v-radio
        v-for="one in ways"
        :key="one.name"
        class="way"
        :class="{ on: one.name === way }"
        :value="one.name"
        :data-way="one.name"
      >
        <template #label>
          <span>
            <b>{{ one.title }}</b>
            <span v-for="line in one.do" :key="line" class="line">{{ line }}</span>
            <span v-if="one.wait" class="line quiet">
              Wait {{ one.wait.least_h }} to {{ one.wait.most_h }} h for {{ one.wait.for_what }}.
            </span>
          </span>
        </template>
      </v-radio>
    </v-radio-group>
    <label v-if="chosen?.asks === 'length'" class="asked">
      how much it is short, along the leg
      <input v-model="amount" :maxlength="mostOf('WrongIn', 'amount', 'Sent')" data-amount />
    </label>
    <Choice
      v-if="chosen?.asks === 'leg'"
      label="With which leg"
      :items="mates.map((unit) => ({ value: unit.of, title: unit.name }))"
      :value="other"
      @choose="other = $event"
    />
    <label class="says">
      what happened
      <textarea
        v-model="note"
        rows="2"
        :maxlength="mostOf('WrongIn', 'note', 'Sent')"
        data-wrong-note
      />
    </label>
    <div class="acts">
      <v-btn :disabled="!ready" data-wrong-keep @click="keep">So be it</v-btn>
      <v-btn variant="text" @click="open = false">Nothing went wrong</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
.way {
  align-items: flex-start;
  padding: 8px;
  margin-bottom: 0.5rem;
  border: 1.5px solid var(--line);
}
.way.on {
  border-color: var(--ink);
}
.way:focus-within {
  outline: 3px solid var(--measured);
}
.line {
  display: block;
}
.says,
.asked {
  display: grid;
  gap: 0.3rem;
}
textarea,
.asked input {
  font: inherit;
  font-size: 1.15rem;
  color: inherit;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  padding: 8px;
}
.acts {
  display: flex;
  gap: 1rem;
}
</style>
