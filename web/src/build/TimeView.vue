<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'

import { api, ask, Away, Refused } from '../api/client'
import type { Slot, TimeOut } from '../api/types'
import { inTurn } from '../inTurn'
import { tried } from './asked'
import BareNumber from './BareNumber.vue'
import HoursForm from './HoursForm.vue'
import { long, when } from './long'
import TimeStrip from './TimeStrip.vue'
import { vStands } from '../fields/stands'

/** Several pieces over one pair of hands: today's list, when each is done, what moves when one slips. */
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
const time = ref<TimeOut | null>(null)
const said = ref('')
const busy = ref(false)
const slip = ref('')
const by = ref<number | null>(null)
let asked = 0
let stop: AbortController | null = null

async function look(): Promise<void> {
  const turn = (asked += 1)
  stop?.abort()
  stop = new AbortController()
  busy.value = true
  try {
    const query = { zone, slip: slip.value || null, by_h: slip.value ? (by.value ?? 0) : 0 }
    const got = await ask(api.GET('/api/time', { params: { query }, signal: stop.signal }))
    if (turn !== asked) return
    time.value = got
    said.value = ''
  } catch (error) {
    if (turn !== asked || stop.signal.aborted) return
    if (error instanceof Away) {
      said.value = 'The workshop does not answer. Trying again.'
      setTimeout(() => turn === asked && void look(), 2000)
    } else if (error instanceof Refused) said.value = error.problem.detail
    else throw error
  } finally {
    if (turn === asked) busy.value = false
  }
}
function cancel(): void {
  asked += 1
  stop?.abort()
  busy.value = false
}
onMounted(() => void look())
onBeforeUnmount(cancel)

const names = computed(() => new Map(time.value?.pieces.map((one) => [one.id, one.name])))
const days = computed(() => {
  const found: { day: string; today: boolean; slots: Slot[] }[] = []
  const today = new Date().toDateString()
  for (const slot of (time.value?.slots ?? []).slice(0, 120)) {
    const at = new Date(slot.begins)
    const day = at.toLocaleDateString([], { weekday: 'long', day: 'numeric', month: 'long' })
    if (found.at(-1)?.day !== day)
      found.push({ day, today: at.toDateString() === today, slots: [] })
    found.at(-1)?.slots.push(slot)
  }
  return found
})
const shownDays = ref(3)
const clock = (iso: string): string => when(iso, new Date(iso))

const turns = inTurn()
async function promise(id: string, day: string): Promise<void> {
  const params = { path: { id } }
  const keep = async (): Promise<void> => {
    const had = await ask(api.GET('/api/pieces/{id}/build', { params }))
    const document = { ...had.document, promised: day || null } as Record<string, unknown>
    const body = { document, based_on: had.number, copy_number: 1 }
    await ask(api.PUT('/api/pieces/{id}/build', { params, body }))
  }
  // A day typed figure by figure is several, one right after the other.
  const done = await turns.next(() => tried(said, keep))
  if (done && !turns.waiting()) await look()
}
const late = (hours: number): string =>
  hours < 48 ? `${Math.ceil(hours)} h` : `${Math.round(hours / 24)} days`
</script>

<template>
  <main class="time">
    <header>
      <h1>Time</h1>
      <p v-if="busy" class="quiet" role="status">
        Laying it out.
        <button class="plain word" type="button" data-time-cancel @click="cancel">stop</button>
      </p>
      <p v-if="said" role="alert" class="wrong">{{ said }}</p>
      <a
        v-if="time"
        class="on"
        :href="`/api/time/calendar?zone=${encodeURIComponent(zone)}`"
        download
        data-ics
      >
        as a calendar file
      </a>
    </header>
    <p v-if="time && !time.pieces.length" data-time-empty>
      No piece of yours is unfinished. Hang one on the rack and its steps are laid out here.
    </p>
    <template v-else-if="time">
      <TimeStrip :time="time" />
      <div class="two">
        <section aria-label="What to do when">
          <div
            v-for="day in days.slice(0, shownDays)"
            :key="day.day"
            class="day"
            :data-day="day.today ? 'today' : ''"
          >
            <h2>{{ day.today ? 'Today' : day.day }}</h2>
            <p v-for="slot in day.slots" :key="slot.begins" class="slot" data-slot>
              <span class="figures">{{ clock(slot.begins) }} to {{ clock(slot.ends) }}</span>
              <span>
                <RouterLink
                  class="on"
                  :to="`/piece/${slot.job}/bench/${encodeURIComponent(slot.key)}`"
                  >{{ names.get(slot.job) }}</RouterLink
                >
                {{ slot.title }}
                <span v-if="slot.rests_until" class="quiet">
                  rests until {{ when(slot.rests_until) }} for {{ slot.for_what }}
                </span>
              </span>
            </p>
          </div>
          <button
            v-if="days.length > shownDays"
            class="plain word"
            type="button"
            @click="shownDays += 7"
          >
            the days after
          </button>
        </section>
        <aside>
          <v-table>
            <thead>
              <tr>
                <th scope="col">piece</th>
                <th scope="col">work left</th>
                <th scope="col">done</th>
                <th scope="col">promised</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in time.pieces" :key="one.id" :data-time-piece="one.name">
                <td>
                  <RouterLink class="on" :to="`/piece/${one.id}/work`">{{ one.name }}</RouterLink>
                  <p class="quiet small">{{ one.why }}</p>
                </td>
                <td class="figures">{{ long(one.work_h * 60) }}</td>
                <td>
                  {{ one.ends ? when(one.ends) : 'no room' }}
                  <p v-if="one.late_h > 0" class="wrong" data-late>{{ late(one.late_h) }} late</p>
                </td>
                <td>
                  <input
                    v-stands="one.promised ?? ''"
                    type="date"
                    :aria-label="`${one.name}: promised for`"
                    @change="promise(one.id, ($event.target as HTMLInputElement).value)"
                  />
                  <p v-if="one.past" class="wrong small" data-past>that day is over</p>
                </td>
              </tr>
            </tbody>
          </v-table>
          <p v-if="time.least" class="quiet small">
            Everything could be done by {{ when(time.least) }} at the earliest;
            {{ long(time.work_h * 60) }} of work in all.
          </p>
          <p v-for="name in time.trouble" :key="name" class="wrong">
            {{ name }} cannot be worked out as it stands: it is not in here.
          </p>
          <div class="slip">
            <h2>If something slips</h2>
            <label>
              the next step of
              <select v-model="slip" data-slip @change="look">
                <option value="">nothing</option>
                <option v-for="one in time.pieces" :key="one.id" :value="one.id">
                  {{ one.name }}
                </option>
              </select>
            </label>
            <BareNumber
              label="takes so many hours longer"
              :value="by"
              :least="0"
              :most="1000"
              data-slip-by
              @commit="((by = $event), look())"
            />
            <p v-for="one in time.moved" :key="one.job" data-moved>
              {{ one.name }} is done {{ late(Math.abs(one.by_h)) }}
              {{ one.by_h > 0 ? 'later' : 'earlier'
              }}{{ one.late_h ? `, ${late(one.late_h)} late` : '' }}.
            </p>
            <p v-if="slip && by && !time.moved.length" data-moved>
              Nothing else moves: there is room.
            </p>
          </div>
          <HoursForm :hours="time.hours" :own="time.own" @kept="look" />
        </aside>
      </div>
    </template>
  </main>
</template>

<style scoped>
.time {
  padding: 0.6rem 1.25rem 2rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.6rem;
  align-items: baseline;
}
h1 {
  font-size: 1.4rem;
}
header .on {
  margin-left: auto;
}
.on {
  color: inherit;
  font-weight: 600;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 560px;
  gap: 2rem;
}
.day h2 {
  font-size: 1.1rem;
  border-bottom: 1.5px solid var(--ink);
  padding-top: 0.7rem;
}
.slot {
  display: grid;
  grid-template-columns: 10.5rem 1fr;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
input,
select {
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: 1.5px solid var(--ink);
  padding: 3px 6px;
  min-height: 30px;
  color-scheme: light dark;
}
.small {
  font-size: 0.88rem;
}
.wrong {
  color: var(--cut);
  font-weight: 600;
}
.slip {
  display: grid;
  gap: 0.4rem;
  padding: 0.8rem 0;
  max-width: 26rem;
}
@media (max-width: 1100px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
