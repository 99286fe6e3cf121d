import { afterEach, describe, expect, it } from 'vitest'
import { type App, createApp, defineComponent, h } from 'vue'

import { useKey } from '../src/keys'

const there: App[] = []
/** A component that stands on the page and hears keys. */
function stands(setup: () => void): App {
  const app = createApp(
    defineComponent(() => {
      setup()
      return () => h('p')
    }),
  )
  app.mount(document.createElement('div'))
  there.push(app)
  return app
}
function press(
  key: string,
  more: KeyboardEventInit = {},
  on: EventTarget = document.body,
): boolean {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more })
  return on.dispatchEvent(event)
}
afterEach(() => {
  for (const app of there.splice(0)) app.unmount()
  document.body.innerHTML = ''
})

describe('a key of the page', () => {
  it('is heard while its component stands, and not after', () => {
    const heard: string[] = []
    const app = stands(() => useKey('u', () => heard.push('u')))
    expect(press('u')).toBe(false)
    press('x')
    press('u', { altKey: true })
    app.unmount()
    there.pop()
    expect(press('u')).toBe(true)
    expect(heard).toEqual(['u'])
  })

  it('is heard by whoever came last, and by the one before when that one has gone', () => {
    const heard: string[] = []
    stands(() => useKey('w', () => heard.push('page')))
    const bench = stands(() => useKey('w', () => heard.push('bench')))
    press('w')
    bench.unmount()
    there.pop()
    press('w')
    expect(heard).toEqual(['bench', 'page'])
  })

  it('is a letter where somebody types, and a key where a box is ticked', () => {
    const heard: string[] = []
    stands(() => useKey('t', () => heard.push('t')))
    const field = document.body.appendChild(document.createElement('input'))
    expect(press('t', {}, field)).toBe(true)
    field.type = 'checkbox'
    expect(press('t', {}, field)).toBe(false)
    expect(heard).toEqual(['t'])
  })

  it('goes to what lies over the bench', () => {
    const heard: string[] = []
    stands(() => useKey('r', () => heard.push('r')))
    document.body.innerHTML = '<div data-run></div>'
    press('r')
    document.body.innerHTML = '<div class="v-overlay--active"><div class="sheet"></div></div>'
    press('r')
    expect(heard).toEqual([])
  })

  it('is heard with Shift where the keyboard wants Shift for it, and undo is told from redo', () => {
    const heard: string[] = []
    stands(() => {
      useKey('?', () => heard.push('help'))
      useKey('cmd+z', () => heard.push('undo'))
      useKey('cmd+shift+z', () => heard.push('redo'))
    })
    press('?')
    press('?', { shiftKey: true })
    press('z', { ctrlKey: true })
    press('Z', { ctrlKey: true, shiftKey: true })
    expect(heard).toEqual(['help', 'help', 'undo', 'redo'])
  })
})
