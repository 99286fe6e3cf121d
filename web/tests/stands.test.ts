import { describe, expect, it } from 'vitest'
import { createApp, defineComponent, h, nextTick, ref, withDirectives } from 'vue'

import { vStands } from '../src/fields/stands'

/** A field that shows a value, re-drawn whenever an answer comes. */
function shown() {
  const value = ref('one')
  const answers = ref(0)
  const place = document.createElement('div')
  document.body.append(place)
  createApp(
    defineComponent(
      () => () =>
        h('div', { 'data-n': answers.value }, [
          withDirectives(h('textarea'), [[vStands, value.value]]),
        ]),
    ),
  ).mount(place)
  const field = place.querySelector('textarea')
  if (!field) throw new Error('no field')
  return { value, answers, field }
}

describe('a field that is read when it is left', () => {
  it('shows what stands there, and what comes to stand there', async () => {
    const { value, field } = shown()
    expect(field.value).toBe('one')
    value.value = 'two'
    await nextTick()
    expect(field.value).toBe('two')
  })

  it('keeps what is being typed when an answer comes, whether or not that changes it', async () => {
    const { value, answers, field } = shown()
    field.focus()
    field.value = 'one and a half'
    answers.value += 1
    await nextTick()
    expect(field.value).toBe('one and a half')
    value.value = 'two'
    await nextTick()
    expect(field.value).toBe('one and a half')
  })

  it('stands as it is read once it was left', async () => {
    const { value, answers, field } = shown()
    field.focus()
    field.value = ' 2 '
    field.blur()
    value.value = '2 mm'
    await nextTick()
    expect(field.value).toBe('2 mm')
    field.value = 'strange'
    answers.value += 1
    await nextTick()
    expect(field.value).toBe('2 mm')
  })
})
