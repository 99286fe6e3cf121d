import type { Directive } from 'vue'

type Field = HTMLInputElement | HTMLTextAreaElement

/**
 * What stands in a field that is read when it is left. Answers that come while somebody types in it leave
 * alone what was typed: it is read, or taken back, when the field is left.
 */
export const vStands: Directive<Field, string | number | undefined> = {
  mounted(field, { value }) {
    field.value = String(value ?? '')
  },
  updated(field, { value, oldValue }) {
    const [now, before] = [String(value ?? ''), String(oldValue ?? '')]
    const typing = document.activeElement === field && field.value !== before
    if (!typing && field.value !== now) field.value = now
  },
}
