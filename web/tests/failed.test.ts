import { afterEach, describe, expect, it, vi } from 'vitest'
import { createApp, defineComponent } from 'vue'

import { Away, Refused } from '../src/api/client'
import { catchAll, failed, wordsOf } from '../src/failed'

afterEach(() => {
  failed.value = ''
  vi.restoreAllMocks()
})

describe('what nobody caught', () => {
  it('is said as what it is to the maker', () => {
    expect(wordsOf(new Away('x'))).toContain('does not answer')
    const problem = { type: '', title: '', status: 409, detail: 'Somebody changed it.', faults: [] }
    expect(wordsOf(new Refused(problem))).toBe('Somebody changed it.')
    const own = wordsOf(new TypeError('nothing there'))
    expect(own).toContain('no fault of yours')
    expect(own).toContain('TypeError: nothing there')
  })

  it('is said whether a part of the page, an answer or the page itself threw it', () => {
    const console_ = vi.spyOn(console, 'error').mockImplementation(() => undefined)
    const app = createApp(
      defineComponent(() => () => {
        throw new Error('a part')
      }),
    )
    catchAll(app)
    app.mount(document.createElement('div'))
    expect(failed.value).toContain('a part')
    expect(console_).toHaveBeenCalled()

    const event = new Event('unhandledrejection')
    window.dispatchEvent(Object.assign(event, { reason: new Error('an answer') }))
    expect(failed.value).toContain('an answer')

    window.dispatchEvent(new ErrorEvent('error', { error: new Error('the page') }))
    expect(failed.value).toContain('the page')
  })

  it('says nothing of a layout that took two turns', () => {
    catchAll(createApp({}))
    window.dispatchEvent(new ErrorEvent('error', { message: 'ResizeObserver loop' }))
    expect(failed.value).toBe('')
  })
})
