<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useTheme } from 'vuetify'

import { failed } from './failed'
import GlossarySheet from './GlossarySheet.vue'
import HelpSheet from './HelpSheet.vue'
import { covered, typing, useKey } from './keys'
import FirstSheet from './shop/FirstSheet.vue'
import { usePiece } from './piece/store'
import SignIn from './session/SignIn.vue'
import { useSession } from './session/store'
import { useShop } from './shop/store'
import { keepTheme, THEMES, type ThemeName } from './theme/vuetify'

const session = useSession()
const shop = useShop()
const piece = usePiece()
const router = useRouter()
const theme = useTheme()
const help = ref(false)
/** The words for what the hands do. */
const words = ref(false)
/** On a phone: whether the ways to other pages are shown. */
const menu = ref(false)
router.afterEach(() => (menu.value = false))
/** Why the shop is not there yet. */
const closed = ref('')

onMounted(() => void session.load())
watch(
  () => session.session?.maker,
  (maker) => {
    if (!maker) return
    void loadShop()
    void session.look()
  },
)

async function loadShop(): Promise<void> {
  try {
    await shop.load()
    closed.value = ''
  } catch {
    closed.value = 'The shop could not be read. Trying again.'
    setTimeout(() => void loadShop(), 2000)
  }
}

const MOST_STATIONS = 9

async function flip(): Promise<void> {
  await shop.flipUnits()
  piece.replan()
}

const again = (): void => location.reload()

function nextTheme(): void {
  const at = THEMES.indexOf(theme.global.name.value as ThemeName)
  const next = THEMES[(at + 1) % THEMES.length] ?? 'limewood'
  void theme.change(next)
  keepTheme(next)
}

/** To the first field of the page, past everything above it. */
function toWork(): void {
  const field = 'main input:not([type=file]):not(.title):not(:disabled)'
  const first = (what: string) => document.querySelector<HTMLElement>(what)
  ;(first(field) ?? first('main button:not(:disabled)'))?.focus()
}

const of = (name: string): boolean => router.currentRoute.value.name === name

useKey('u', flip)
useKey('r', () => router.push('/'))
useKey('q', () => router.push('/quick'))
useKey('s', () => router.push('/shop'))
useKey('w', () => router.push('/timber'))
useKey('t', nextTheme)
useKey('f', toWork)
useKey('p', () => of('piece') && piece.plan && router.push(`/piece/${piece.id}/paper`))
for (let k = 1; k <= MOST_STATIONS; k += 1)
  useKey(String(k), () => {
    const wanted = piece.plan?.stations[k - 1]?.name
    if (wanted && of('piece')) return router.push(`/piece/${piece.id}/${wanted}`)
  })
/** A sheet that its own key opens and shuts. */
for (const [letter, sheet] of [
  ['?', help],
  ['g', words],
] as const)
  useKey(
    letter,
    () => (sheet.value = !sheet.value),
    (event) => sheet.value || (!typing(event) && !covered()),
  )

/** What was typed into a field and is not sent yet is the field's own to take back. */
const whole = (event: KeyboardEvent): boolean =>
  of('piece') && !covered() && (event.target as HTMLElement).closest('[data-fresh]') === null
useKey('cmd+z', () => piece.undo(), whole)
useKey('cmd+shift+z', () => piece.redo(), whole)
useKey('cmd+y', () => piece.redo(), whole)
</script>

<template>
  <v-app>
    <div v-if="failed" class="trouble" role="alert" data-failed>
      <p>{{ failed }}</p>
      <button class="plain word" type="button" @click="again">load the page anew</button>
      <button class="plain word" type="button" @click="failed = ''">put this away</button>
    </div>
    <p v-if="session.away" class="notice" role="status">
      The workshop does not answer. Start it, or wait: this page tries again by itself.
    </p>
    <SignIn v-else-if="session.session && !session.session.maker" />
    <template v-else-if="session.session && shop.shop">
      <button class="skip" type="button" @click="toWork">to the first field</button>
      <header v-if="$route.name !== 'bench'" class="bar">
        <RouterLink to="/" class="name">Proud Rake</RouterLink>
        <button
          class="plain word menu"
          type="button"
          :aria-expanded="menu"
          data-menu
          @click="menu = !menu"
        >
          {{ menu ? 'shut' : 'menu' }}
        </button>
        <nav aria-label="Shop" :class="{ shut: !menu }">
          <RouterLink to="/">Rack</RouterLink>
          <RouterLink to="/quick">Quick set</RouterLink>
          <RouterLink to="/rehearsal">Rehearse</RouterLink>
          <RouterLink to="/timber">Timber</RouterLink>
          <RouterLink to="/time">Time</RouterLink>
          <RouterLink to="/log">Log</RouterLink>
          <RouterLink to="/shop">Shop</RouterLink>
        </nav>
        <div class="right" :class="{ shut: !menu }">
          <button class="plain word" type="button" data-units @click="flip">
            {{ shop.system === 'inch' ? 'inches' : 'millimetres' }}
          </button>
          <button class="plain word" type="button" @click="nextTheme">light</button>
          <button class="plain word" type="button" @click="help = true">keys</button>
          <button class="plain word" type="button" data-words @click="words = true">words</button>
          <button
            v-if="!session.session.demo"
            class="plain word"
            type="button"
            @click="session.signOut()"
          >
            sign out
          </button>
          <RouterLink to="/makers" class="quiet maker">{{ session.session.maker }}</RouterLink>
        </div>
      </header>
      <div v-if="session.troubles.length" class="trouble" role="alert">
        <p v-for="trouble in session.troubles" :key="trouble">{{ trouble }}</p>
      </div>
      <RouterView />
      <HelpSheet v-model="help" />
      <GlossarySheet v-model="words" />
      <FirstSheet v-if="shop.unasked.includes('units')" />
    </template>
    <p v-else class="notice" role="status">{{ closed || 'Opening the shop.' }}</p>
  </v-app>
</template>

<style scoped>
.skip {
  position: absolute;
  left: -99rem;
}
.skip:focus {
  left: 0.5rem;
  top: 0.3rem;
  z-index: 10;
  padding: 0.3rem 0.8rem;
  background: var(--sheet);
  border: 1.5px solid var(--ink);
}
.bar {
  display: flex;
  align-items: baseline;
  gap: 1.6rem;
  padding: 0.55rem 1.25rem 0.5rem;
  border-bottom: 1.5px solid var(--ink);
}
.name {
  font-weight: 700;
  font-size: 1.1rem;
  color: inherit;
  text-decoration: none;
}
nav {
  display: flex;
  gap: 1.1rem;
}
nav a {
  color: inherit;
  text-decoration: none;
  padding: 2px 0;
}
nav a.router-link-exact-active {
  border-bottom: 2px solid var(--ink);
}
.right {
  margin-left: auto;
  display: flex;
  gap: 1.1rem;
  align-items: baseline;
}
.maker {
  color: inherit;
}
.trouble {
  padding: 0.4rem 1.25rem;
  border-bottom: 1.5px solid var(--caution);
  border-left: 8px solid var(--caution);
}
.trouble button {
  margin-right: 1.2rem;
}
.notice {
  padding: 18vh 2rem;
  text-align: center;
}
.menu {
  display: none;
}
@media (max-width: 900px) {
  .bar,
  nav,
  .right {
    gap: 0.7rem;
  }
}
@media (max-width: 600px) {
  .bar {
    flex-wrap: wrap;
    gap: 0 1rem;
    padding: 0.1rem 0.75rem;
  }
  .bar .shut {
    display: none;
  }
  .menu {
    display: inline;
    margin-left: auto;
  }
  nav,
  .right {
    width: 100%;
    margin: 0;
    flex-wrap: wrap;
  }
  nav a {
    line-height: 40px;
  }
}
</style>
