<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { api, ask } from '../api/client'
import type { Backup, Browser, Health, Maker } from '../api/types'
import ArchivePanel from './ArchivePanel.vue'
import { saidOf } from './said'
import { useSession } from './store'

/** The makers of the shop: one's own password and browsers, the others, and how all of it is kept. */
const store = useSession()
const leads = computed(() => store.session?.leads === true)
const browsers = ref<Browser[]>([])
const makers = ref<Maker[]>([])
const backups = ref<Backup[]>([])
const health = ref<Health | null>(null)
const said = ref('')
const wrong = ref<Record<string, string>>({})
const own = ref({ old: '', fresh: '' })
const other = ref({ name: '', password: '' })
/** Whose password is being replaced. */
const forgot = ref('')
const given = ref('')
const busy = ref(false)

onMounted(() => void load())

async function load(): Promise<void> {
  await doing('', async () => {
    browsers.value = await ask(api.GET('/api/session/browsers'))
    makers.value = await ask(api.GET('/api/makers'))
    health.value = await ask(api.GET('/api/health'))
    if (leads.value) backups.value = await ask(api.GET('/api/backups'))
  })
}

/** Do one thing; what is wrong with it is said beside `field`. */
async function doing(field: string, what: () => Promise<string | void>): Promise<void> {
  wrong.value = {}
  busy.value = true
  if (field) said.value = ''
  try {
    said.value = (await what()) ?? said.value
  } catch (error) {
    wrong.value = { [field]: saidOf(error) }
  } finally {
    busy.value = false
  }
}

function changePassword(): Promise<void> {
  return doing('own', async () => {
    const body = { old: own.value.old, new: own.value.fresh }
    store.session = await ask(api.PUT('/api/session/password', { body }))
    own.value = { old: '', fresh: '' }
    browsers.value = await ask(api.GET('/api/session/browsers'))
    return 'Your password is changed. Every other browser is signed out.'
  })
}

function signOutThere(one: Browser): Promise<void> {
  return doing('browsers', async () => {
    const params = { path: { id: one.id } }
    await ask(api.DELETE('/api/session/browsers/{id}', { params }))
    browsers.value = browsers.value.filter((b) => b.id !== one.id)
    return 'That browser is signed out.'
  })
}

function add(): Promise<void> {
  return doing('other', async () => {
    const made = await ask(api.POST('/api/makers', { body: other.value }))
    makers.value = await ask(api.GET('/api/makers'))
    await store.load()
    other.value = { name: '', password: '' }
    return `${made.name} may now sign in.`
  })
}

function renew(maker: Maker): Promise<void> {
  return doing('forgot', async () => {
    const params = { path: { name: maker.name } }
    await ask(api.PUT('/api/makers/{name}/password', { params, body: { password: given.value } }))
    forgot.value = given.value = ''
    return `${maker.name} has a new password, and is signed out everywhere.`
  })
}

function remove(maker: Maker): Promise<void> {
  return doing('makers', async () => {
    await ask(api.DELETE('/api/makers/{name}', { params: { path: { name: maker.name } } }))
    makers.value = makers.value.filter((m) => m.name !== maker.name)
    return `${maker.name} has left the shop. What they did stays; add them again to let them back.`
  })
}

function backUp(): Promise<void> {
  return doing('backups', async () => {
    const made = await ask(api.POST('/api/backups'))
    backups.value = await ask(api.GET('/api/backups'))
    health.value = await ask(api.GET('/api/health'))
    return `Everything is in ${made.name}.`
  })
}

const KINDS: Record<string, string> = {
  night: 'made at night',
  hand: 'made by hand',
  before: 'made before a new version',
}
const day = (iso: string): string =>
  new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
const size = (bytes: number): string =>
  bytes < 1e5
    ? `${Math.ceil(bytes / 1e3)} kB`
    : bytes < 1e9
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${Math.round(bytes / 1e9)} GB`

function used(one: Browser): string {
  const [since, seen] = [one.since, one.seen].map((iso) =>
    new Date(iso).toLocaleDateString(undefined, { dateStyle: 'medium' }),
  )
  return since === seen ? `since ${since}` : `since ${since}, last used ${seen}`
}

/** A browser as people call it: what it says of itself is for programs. */
function called(one: Browser): string {
  const kind = /Firefox|Edg|Chrome|Safari/.exec(one.browser)?.[0].replace('Edg', 'Edge')
  const on = /Android|iPhone|iPad|Windows|Mac OS|Linux/.exec(one.browser)?.[0]
  return [kind ?? 'a browser', on ? `on ${on}` : '', `from ${one.address}`].join(' ')
}
</script>

<template>
  <main class="makers">
    <h1>{{ store.session?.maker }}</h1>
    <p v-if="said" role="status" class="done">{{ said }}</p>
    <p v-if="wrong['']" role="alert" class="wrong">{{ wrong[''] }}</p>
    <div class="rooms">
      <section v-if="!store.session?.demo" aria-labelledby="own">
        <h2 id="own">Your password</h2>
        <form @submit.prevent="changePassword">
          <input type="text" class="hidden" autocomplete="username" :value="store.session?.maker" />
          <v-text-field
            v-model="own.old"
            label="As it is"
            type="password"
            autocomplete="current-password"
          />
          <v-text-field
            v-model="own.fresh"
            label="As it shall be"
            type="password"
            autocomplete="new-password"
            :error-messages="wrong.own"
          />
          <v-btn type="submit" :disabled="busy || !own.old || !own.fresh">Change it</v-btn>
        </form>
      </section>
      <section v-if="!store.session?.demo" aria-labelledby="browsers">
        <h2 id="browsers">Where you are signed in</h2>
        <p v-if="wrong.browsers" role="alert" class="wrong">{{ wrong.browsers }}</p>
        <ul>
          <li v-for="one in browsers" :key="one.id">
            <span
              >{{ called(one) }}
              <span class="quiet">{{ used(one) }}</span>
            </span>
            <span v-if="one.here" class="quiet">here</span>
            <button v-else class="plain word" type="button" @click="signOutThere(one)">
              sign out there
            </button>
          </li>
        </ul>
      </section>
      <section aria-labelledby="others">
        <h2 id="others">The makers of this shop</h2>
        <p class="quiet">
          Everybody sees and works on every piece but those somebody keeps to themselves. Whoever
          made a piece, or the first maker, takes it off the rack.
        </p>
        <p v-if="wrong.makers" role="alert" class="wrong">{{ wrong.makers }}</p>
        <ul>
          <li v-for="maker in makers" :key="maker.name" :data-maker="maker.name">
            <span
              >{{ maker.name }} <span v-if="maker.first" class="quiet">the first maker</span></span
            >
            <template v-if="leads && !maker.first">
              <button class="plain word" type="button" @click="forgot = maker.name">
                new password
              </button>
              <button class="plain word" type="button" @click="remove(maker)">
                take from the shop
              </button>
            </template>
            <form v-if="forgot === maker.name" class="wide" @submit.prevent="renew(maker)">
              <input type="text" class="hidden" autocomplete="username" :value="maker.name" />
              <v-text-field
                v-model="given"
                :label="`New password for ${maker.name}`"
                type="password"
                autocomplete="new-password"
                :error-messages="wrong.forgot"
              />
              <v-btn type="submit" :disabled="busy || !given">Give it</v-btn>
            </form>
          </li>
        </ul>
        <form v-if="leads && !store.session?.demo" data-add-maker @submit.prevent="add">
          <v-text-field
            v-model="other.name"
            label="Name of another maker"
            autocomplete="username"
          />
          <v-text-field
            v-model="other.password"
            label="A password to begin with"
            type="password"
            autocomplete="new-password"
            :error-messages="wrong.other"
          />
          <v-btn type="submit" :disabled="busy || !other.name || !other.password">Add</v-btn>
        </form>
      </section>
      <section aria-labelledby="kept">
        <h2 id="kept">How it is kept</h2>
        <p v-if="health" class="quiet">
          Version {{ health.version }}; {{ size(health.free ?? 0) }} free on the disk; last backup:
          {{ health.last_backup ? day(health.last_backup) : 'none yet' }}. One is made every night;
          the last fourteen stay.
        </p>
        <template v-if="leads">
          <p v-if="wrong.backups" role="alert" class="wrong">{{ wrong.backups }}</p>
          <v-btn data-back-up :disabled="busy" @click="backUp">Make a backup now</v-btn>
          <ArchivePanel @changed="load" />
          <ul>
            <li v-for="one in backups" :key="one.name">
              <span
                >{{ day(one.made) }}
                <span class="quiet">{{ KINDS[one.kind] }}, {{ size(one.size) }}</span></span
              >
              <a class="word" :href="`/api/backups/${one.name}`" download>fetch it</a>
            </li>
          </ul>
        </template>
        <p v-else class="quiet">The first maker fetches the backups.</p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.makers {
  padding: 0.9rem 1.25rem 3rem;
  display: grid;
  gap: 0.9rem;
  max-width: 1280px;
}
h1 {
  font-size: 1.4rem;
}
.rooms {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 1.6rem 3rem;
}
section {
  display: grid;
  gap: 0.6rem;
  align-content: start;
  border-top: 1.5px solid var(--ink);
  padding-top: 0.6rem;
}
form {
  display: grid;
  gap: 0.7rem;
  max-width: 24rem;
  justify-items: start;
}
form > * {
  width: 100%;
}
form > .v-btn {
  width: auto;
}
ul {
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.2rem;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
li > span:first-child {
  flex: 1;
  min-width: 14rem;
}
section > .v-btn {
  justify-self: start;
}
li a {
  color: inherit;
}
.wide {
  flex-basis: 100%;
}
.hidden {
  display: none;
}
.done {
  color: var(--measured);
}
.wrong {
  color: var(--cut);
}
@media (max-width: 900px) {
  .rooms {
    grid-template-columns: 1fr;
  }
}
.inline {
  display: inline-block;
}
</style>
