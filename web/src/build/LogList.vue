<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { LogEntry } from '../api/types'
import Choice from '../fields/Choice.vue'
import { long, when } from './long'
import { mostOf } from '../fields/published'

/** The log of one piece, or of the whole shop: searched, the latest first. */
const props = defineProps<{
  /** Id of the piece; none for the whole shop. */
  piece?: string
  /** Anything that is new when something was written. */
  stamp?: unknown
}>()
const entries = ref<LogEntry[]>([])
const more = ref(false)
const words = ref('')
const sort = ref('')
const said = ref('')
const loaded = ref(false)
let asked = 0
const SORTS = [
  { value: '', title: 'everything' },
  { value: 'done', title: 'steps' },
  { value: 'reading', title: 'readings' },
  { value: 'mishap', title: 'went wrong' },
  { value: 'glue', title: 'glue-ups' },
  { value: 'lesson', title: 'lessons' },
  { value: 'note', title: 'notes' },
  { value: 'photo', title: 'photographs' },
  { value: 'repair', title: 'repairs' },
]
const SAYS: Record<string, string> = {
  done: 'done',
  undone: 'not done after all',
  mishap: 'went wrong',
  note: 'note',
  lesson: 'lesson',
  photo: 'photograph',
  time: 'hours',
  repair: 'repair',
  order: 'order of work',
  reading: 'read',
  glue: 'glue-up',
}

async function load(before: string | null = null): Promise<void> {
  const turn = (asked += 1)
  const query = { words: words.value, sort: sort.value, before }
  try {
    const got = props.piece
      ? await ask(api.GET('/api/pieces/{id}/log', { params: { path: { id: props.piece }, query } }))
      : await ask(api.GET('/api/log', { params: { query } }))
    if (turn !== asked) return
    entries.value = before ? [...entries.value, ...got.entries] : got.entries
    more.value = got.more
    said.value = ''
    loaded.value = true
  } catch (error) {
    if (turn !== asked) return
    if (error instanceof Away) {
      said.value = 'The workshop does not answer. Trying again.'
      setTimeout(() => turn === asked && void load(before), 2000)
    } else if (error instanceof Refused) said.value = error.problem.detail
    else throw error
  }
}
const soon = useDebounceFn(() => void load(), 150)
onMounted(() => void load())
watch(words, () => void soon())
watch(
  () => [sort.value, props.piece, props.stamp],
  () => void load(),
)
const days = computed(() => {
  const found: { day: string; entries: LogEntry[] }[] = []
  for (const one of entries.value) {
    const day = new Date(one.at).toLocaleDateString([], {
      weekday: 'long',
      day: 'numeric',
      month: 'long',
      year: 'numeric',
    })
    if (found.at(-1)?.day !== day) found.push({ day, entries: [] })
    found.at(-1)?.entries.push(one)
  }
  return found
})
const time = (iso: string): string => when(iso, new Date(iso))
</script>

<template>
  <section class="log">
    <div class="ask">
      <label class="seek">
        <span class="quiet">search</span>
        <input
          v-model="words"
          type="search"
          :maxlength="mostOf('/api/log', 'words', 'Sent')"
          data-log-search
        />
      </label>
      <Choice label="Show" :items="SORTS" :value="sort" @choose="sort = $event" />
    </div>
    <p v-if="said" role="status">{{ said }}</p>
    <p v-else-if="loaded && !entries.length" class="quiet" data-log-empty>
      {{ words || sort ? 'Nothing of that kind.' : 'Nothing happened yet that was written down.' }}
    </p>
    <div v-for="day in days" :key="day.day" class="day">
      <h3>{{ day.day }}</h3>
      <article
        v-for="one in day.entries"
        :key="`${one.sort} ${one.id}`"
        :class="one.sort"
        data-entry
      >
        <span class="at figures">{{ time(one.at) }}</span>
        <div>
          <p>
            <b class="sort">{{ SAYS[one.sort] ?? one.sort }}</b>
            <RouterLink v-if="!piece" class="name" :to="`/piece/${one.piece}/log`">{{
              one.name
            }}</RouterLink>
            <span v-if="one.title">{{ one.title }}</span>
            <span v-if="one.copy_number > 1" class="quiet">no. {{ one.copy_number }}</span>
            <span v-if="one.minutes" class="quiet">{{ long(one.minutes) }}</span>
            <span v-if="one.by" class="quiet">{{ one.by }}</span>
          </p>
          <p v-if="one.says" class="says">{{ one.says }}</p>
          <p v-if="one.rescue" class="cure">
            {{ one.rescue }}{{ one.became.length ? `: ${one.became.join('; ')}` : '' }}
          </p>
          <img
            v-if="one.photo"
            :src="one.photo"
            :alt="`Photograph: ${one.title || one.name}`"
            loading="lazy"
          />
        </div>
      </article>
    </div>
    <v-btn v-if="more" size="small" @click="load(entries.at(-1)?.at ?? null)">earlier</v-btn>
  </section>
</template>

<style scoped>
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
  align-items: end;
  padding: 0.3rem 0 0.6rem;
}
.seek {
  display: grid;
}
.seek input {
  font: inherit;
  font-size: 1.1rem;
  color: inherit;
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 6px 8px;
  width: 17rem;
}
.day h3 {
  font-size: 1rem;
  border-bottom: 1.5px solid var(--ink);
  padding: 0.6rem 0 2px;
}
article {
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1fr);
  column-gap: 0.5rem;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
article p {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.9rem;
}
.sort {
  min-width: 6.5rem;
}
.mishap .sort {
  color: var(--cut);
}
.lesson .sort,
.reading .sort {
  color: var(--measured);
}
.name {
  color: inherit;
  font-weight: 600;
}
.says {
  white-space: pre-line;
}
.cure {
  border-left: 6px double var(--measured);
  padding-left: 8px;
}
img {
  max-width: min(100%, 360px);
  max-height: 260px;
  display: block;
  margin-top: 4px;
}
</style>
