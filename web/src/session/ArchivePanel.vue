<script setup lang="ts">
import { ref } from 'vue'

import { api, ask } from '../api/client'
import type { ArchiveOut } from '../api/types'
import { tried } from '../build/asked'
import PickFile from '../fields/PickFile.vue'
import { useTakeBack } from '../takeBack'
import { soMany } from '../words'

/** The whole shop as one archive: out, and in again, looked through first. */
const emit = defineEmits<{ /** Something was brought in, or taken back. */ changed: [] }>()
const said = ref('')
const busy = ref('')
const looked = ref<{ found: ArchiveOut; file: File } | null>(null)
const { undo, takeBack } = useTakeBack(said, () => emit('changed'))
const WHAT: Record<string, string> = {
  hangs: 'is hung up',
  known: 'hangs already as it is',
  refused: 'cannot be read',
}

async function send(file: File, sure: boolean, leave: boolean): Promise<void> {
  busy.value = sure ? 'Taking it in.' : 'Looking through it.'
  said.value = ''
  await tried(said, async () => {
    const call = api.POST('/api/archive', {
      params: { query: { sure, leave } },
      body: file as never,
      bodySerializer: (raw: unknown) => raw as File,
      headers: { 'Content-Type': 'application/zip' },
    })
    const found = await ask<ArchiveOut>(call)
    looked.value = found.taken ? null : { found, file }
    if (!found.taken) return
    undo.value = found.undo
    said.value = `${soMany(found.hung, 'piece was', 'pieces were')} hung up; ${found.known} hung already.`
    emit('changed')
  })
  busy.value = ''
}
</script>

<template>
  <div class="archive" data-archive>
    <p>
      <a class="word plain inline" href="/api/archive" download
        >Take everything out as open files</a
      >
    </p>
    <p>
      <PickFile
        label="Take an archive or a backup in"
        accept=".zip,application/zip"
        data-archive-file
        @pick="send($event, false, false)"
      />
      <span class="quiet">&nbsp;Nothing that is here is overwritten.</span>
    </p>
    <p v-if="busy" role="status">{{ busy }}</p>
    <p v-if="said" role="status" data-archive-said>{{ said }}</p>
    <p v-if="undo !== null">
      <button class="plain word" type="button" data-archive-undo @click="takeBack">
        take it back
      </button>
    </p>
    <div v-if="looked" class="look" data-archive-look>
      <p>
        <b v-if="looked.found.hung || looked.found.shop || looked.found.stock"
          >{{ soMany(looked.found.hung, 'piece', 'pieces') }} would be hung up</b
        ><b v-else>Nothing in it is new here</b>, {{ looked.found.known }} hang already<template
          v-if="looked.found.refused"
          >, {{ looked.found.refused }} cannot be read</template
        >. {{ looked.found.shop ? 'The tools come along.' : 'The tools stay as they are here.' }}
        {{
          looked.found.stock
            ? `${soMany(looked.found.stock, 'piece of wood comes', 'pieces of wood come')} along.`
            : 'The store stays as it is here.'
        }}
      </p>
      <ul>
        <li
          v-for="one in looked.found.pieces"
          :key="one.file"
          :class="{ bad: one.what === 'refused' }"
        >
          {{ one.name }} <span class="quiet">{{ WHAT[one.what] }}</span>
          <template v-if="one.why">: {{ one.why }}</template>
        </li>
      </ul>
      <p v-if="looked.found.refused" class="bad">
        All of it is taken in, or nothing; or leave those out that cannot be read.
      </p>
      <v-btn
        v-if="looked.found.hung || looked.found.shop || looked.found.stock"
        size="small"
        :disabled="busy !== ''"
        data-archive-take
        @click="send(looked.file, true, looked.found.refused > 0)"
      >
        {{ looked.found.refused ? 'Take the rest in' : 'Take it in' }}
      </v-btn>
      <button class="plain word" type="button" @click="looked = null">leave it</button>
    </div>
  </div>
</template>

<style scoped>
.look {
  display: grid;
  gap: 0.5rem;
  justify-items: start;
  border-left: 8px solid var(--measured);
  padding: 0.4rem 0.9rem;
}
ul {
  list-style: none;
  max-height: 16rem;
  overflow-y: auto;
  width: 100%;
}
.bad {
  color: var(--cut);
  font-weight: 600;
}
</style>
