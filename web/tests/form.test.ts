import { describe, expect, it } from 'vitest'
import { createApp, defineComponent, h, nextTick, provide, reactive } from 'vue'
import { createVuetify } from 'vuetify'

import DocumentForm from '../src/fields/DocumentForm.vue'
import { HOST, type Host } from '../src/fields/host'
import { valueAt } from '../src/paths'

/** A form of a shop's tool, as a page that provides the shop shows it. */
function shown(rows: (string | { words: string })[]) {
  const shop = reactive({
    rounding: { fraction: 32 },
    tools: [{ kind: 'bevel_gauge', scale: { at_square: 90, counts: 'down', reach: 85 } }],
  })
  const faults = reactive<Record<string, { said: string }>>({})
  const sent: [string, unknown][] = []
  const host: Host = {
    root: 'Shop',
    document: () => shop,
    text: (path) => `${String(valueAt(shop, path))}°`,
    fault: (path) => faults[path] as ReturnType<Host['fault']>,
    set: (path, value) => sent.push([path, value]),
    stamp: () => shop,
  }
  const place = document.createElement('div')
  document.body.append(place)
  const page = defineComponent(() => {
    provide(HOST, host)
    return () => h(DocumentForm, { rows })
  })
  createApp(page).use(createVuetify()).mount(place)
  return { place, sent, faults }
}
const labelled = (place: HTMLElement, words: string): HTMLInputElement => {
  const found = [...place.querySelectorAll('label')].find((one) => one.textContent.trim() === words)
  const input = found?.querySelector('input')
  if (!input) throw new Error(`no ${words}`)
  return input
}

describe('a form of a document its page provides', () => {
  it('is called and filled in as the core says of that document', () => {
    const { place } = shown(['tools.0.scale.reach', { words: 'tools.0.scale.counts' }])
    expect(place.textContent).toContain('Reaches')
    expect(place.querySelector<HTMLInputElement>('[data-field$=reach] input')?.value).toBe('85°')
    expect(labelled(place, 'down').checked).toBe(true)
  })

  it('sends a number where the core chooses among numbers, to its place in that document', () => {
    const { place, sent } = shown([{ words: 'rounding.fraction' }])
    labelled(place, '1/64').click()
    expect(sent).toEqual([['rounding.fraction', 64]])
  })

  it('says what is wrong at the field it is about', async () => {
    const { place, faults } = shown(['tools.0.scale.reach'])
    faults['tools.0.scale.reach'] = { said: 'Give a smaller one.' }
    await nextTick()
    expect(place.querySelector('[data-field$=reach]')?.textContent).toContain('Give a smaller one.')
  })
})
