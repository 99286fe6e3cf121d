<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api, ask, Away, Refused } from '../api/client'
import type { Fault, QuickLeanOut, QuickMitreOut } from '../api/types'
import Choice from '../fields/Choice.vue'
import TypedField from '../fields/TypedField.vue'
import WhyFigure from '../fields/WhyFigure.vue'
import { usePiece } from '../piece/store'
import { useShop } from '../shop/store'
import QuickCard from './QuickCard.vue'
import { namesOfALean } from '../fields/published'

/** The bench question without a piece: one lean, or one mitre, on the shop's own scales. */
type Name = 'splay' | 'rake' | 'resultant' | 'from_side' | 'from_centre'
const router = useRouter()
const shop = useShop()
const what = ref('lean')
const given = ref<{ name: Name; typed: string }[]>([
  { name: 'splay', typed: '11' },
  { name: 'rake', typed: '7' },
])
const lean = ref<QuickLeanOut | null>(null)
const mitre = ref<QuickMitreOut | null>(null)
const corner = ref({ splay: '13', rail: '', leg: '' })
const faults = ref<Record<string, Fault>>({})
const away = ref(false)
let turn = 0

const KINDS = [
  { value: 'lean', title: 'a lean: boring, ramp, block, foot cut' },
  { value: 'mitre', title: 'a mitre between rail and leaning leg' },
]
/** The names of a lean, and which of its four each says: a sightline is one, from either line. */
const NAMES = namesOfALean() as { name: Name; label: string; of: string }[]

/** The two typed last are what is given; the others follow. */
function give(name: Name, typed: string): void {
  const says = (of: Name): string => NAMES.find((one) => one.name === of)?.of ?? ''
  const rest = given.value.filter((other) => says(other.name) !== says(name)).slice(-1)
  given.value = typed.trim() ? [...rest, { name, typed }] : rest
  void answer()
}

function shown(name: Name): string {
  const own = given.value.find((g) => g.name === name)
  const l = lean.value?.answer.lean
  if (!l || own) return own?.typed ?? ''
  const found = {
    splay: l.splay,
    rake: l.rake,
    resultant: l.resultant.quantity,
    from_side: l.from_side?.quantity,
    from_centre: l.from_centre?.quantity,
  }[name]
  return found?.text ?? 'none'
}

async function answer(): Promise<void> {
  turn += 1
  const mine = turn
  try {
    if (what.value === 'lean') {
      if (given.value.length < 2) return
      const body = Object.fromEntries(given.value.map((g) => [g.name, g.typed]))
      const got = await ask(api.POST('/api/quick/lean', { body }))
      if (mine === turn) lean.value = got as QuickLeanOut
    } else {
      const got = await ask(api.POST('/api/quick/mitre', { body: corner.value }))
      if (mine === turn) mitre.value = got as QuickMitreOut
    }
    if (mine === turn) {
      faults.value = {}
      away.value = false
    }
  } catch (error) {
    if (mine !== turn) return
    if (error instanceof Refused) {
      const last = given.value.at(-1)?.name ?? 'splay'
      faults.value = Object.fromEntries(
        (error.problem.faults ?? []).map((f) => {
          const known = NAMES.some(({ name }) => name === f.field) || f.field in corner.value
          return [known ? f.field : f.field === 'sightline' ? 'from_side' : last, f]
        }),
      )
    } else if (error instanceof Away) {
      away.value = true
      setTimeout(() => mine === turn && void answer(), 1500)
    } else throw error
  }
}

watch(
  () => [shop.system, what.value],
  () => {
    if (!corner.value.rail) {
      const wide = shop.system === 'inch' ? '2 1/2"' : '64 mm'
      corner.value = { ...corner.value, rail: wide, leg: wide }
    }
    void answer()
  },
  { immediate: true },
)

/** A four-legged piece with this lean, to go on from. */
async function become(): Promise<void> {
  const l = lean.value?.answer.lean
  if (!l) return
  const made = await ask(api.POST('/api/pieces', { body: { start: 'round_four', another: false } }))
  await router.push(`/piece/${made.id}/stance`)
  const piece = usePiece()
  const stop = watch(
    () => piece.plan,
    (plan) => {
      if (!plan || piece.id !== made.id) return
      stop()
      const spec = { by: 'splay_rake', splay: l.splay.value, rake: l.rake.value }
      piece.set('supports.0.angles', [spec])
    },
    { immediate: true },
  )
}

const parts = computed(() =>
  mitre.value ? [mitre.value.answer.corner, mitre.value.answer.rail, mitre.value.answer.leg] : [],
)
function type(name: 'splay' | 'rail' | 'leg', typed: string): void {
  corner.value = { ...corner.value, [name]: typed }
  void answer()
}
</script>

<template>
  <main class="quick">
    <div class="line">
      <h1>Quick set</h1>
      <Choice label="What is wanted" :items="KINDS" :value="what" @choose="what = $event" />
      <span v-if="away" role="status">The workshop does not answer. Trying again.</span>
    </div>
    <template v-if="what === 'lean'">
      <div class="fields">
        <TypedField
          v-for="{ name, label } in NAMES"
          :key="name"
          :label="label"
          :text="shown(name)"
          :fault="faults[name]"
          :class="{ given: given.some((g) => g.name === name) }"
          :stamp="() => lean"
          :data-quick="name"
          @commit="give(name, $event)"
        />
        <v-btn :disabled="!lean" @click="become">Make a piece of it</v-btn>
      </div>
      <p class="quiet small">Type any two; the two typed last count, and the others follow.</p>
      <p v-if="lean && !lean.answer.lean.from_side" class="small">
        It stands square: there is no sightline.
      </p>
      <div v-if="lean" class="cards">
        <QuickCard
          v-for="setting in lean.answer.settings"
          :key="setting.id"
          :setting="setting"
          :picture="lean.pictures[setting.id]"
        />
      </div>
    </template>
    <template v-else>
      <div class="fields">
        <TypedField
          label="Leg splays by"
          :text="corner.splay"
          :fault="faults['splay']"
          @commit="type('splay', $event)"
        />
        <TypedField
          label="Width of the rail"
          :text="corner.rail"
          :fault="faults['rail']"
          @commit="type('rail', $event)"
        />
        <TypedField
          label="Width of the leg"
          :text="corner.leg"
          :fault="faults['leg']"
          @commit="type('leg', $event)"
        />
        <div class="figs">
          <WhyFigure v-for="figure in parts" :key="figure.key" :figure="figure" />
        </div>
      </div>
      <div v-if="mitre" class="cards">
        <QuickCard
          v-for="setting in mitre.answer.settings"
          :key="setting.id"
          :setting="setting"
          :picture="mitre.pictures[setting.id]"
        />
      </div>
    </template>
    <p v-if="(lean ?? mitre) && !(lean?.answer.settings.length || mitre?.answer.settings.length)">
      No tool for this is in the shop yet.
      <RouterLink to="/shop">Say which ones you own.</RouterLink>
    </p>
  </main>
</template>

<style scoped>
.quick {
  padding: 0.9rem 1.25rem 3rem;
  display: grid;
  gap: 0.7rem;
}
.line {
  display: flex;
  gap: 2rem;
  align-items: end;
}
h1 {
  font-size: 1.4rem;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
  gap: 0.7rem;
  align-items: start;
}
.given :deep(.v-field__outline) {
  --v-field-border-width: 2px;
  --v-field-border-opacity: 1;
}
.small {
  font-size: 0.87rem;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(285px, 1fr));
  gap: 1rem 1.4rem;
}
</style>
