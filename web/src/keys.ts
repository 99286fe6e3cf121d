import { onScopeDispose } from 'vue'
import { useHotkey } from 'vuetify'

/** Who hears each key: of several, whoever came last. */
const hearers = new Map<string, symbol[]>()

/** Whether something is being typed: the key is a letter of it. */
export function typing(event: KeyboardEvent): boolean {
  return (event.target as HTMLElement).matches(
    'input:not([type=radio]):not([type=checkbox]), select, textarea, [contenteditable]',
  )
}

/** Whether something lies over the bench that has the keys: a sheet, a glue-up that runs. */
export function covered(): boolean {
  return document.querySelector('.v-overlay--active .sheet, [data-run]') !== null
}

/**
 * A key of the page's own, as long as the component stands.
 *
 * `key` is what the keyboard calls it, with its modifiers ("cmd+z": whichever undo is pressed with here); a
 * single character is heard whether or not the keyboard wants Shift for it. `act` takes it, but where `may`
 * says no: by default while something is typed or something lies over the bench.
 */
export function useKey(
  key: string,
  act: () => unknown,
  may: (event: KeyboardEvent) => boolean = (event) => !typing(event) && !covered(),
): void {
  const mine = Symbol(key)
  const others = () => (hearers.get(key) ?? []).filter((one) => one !== mine)
  hearers.set(key, [...others(), mine])
  onScopeDispose(() => hearers.set(key, others()))
  useHotkey(
    key.length === 1 ? `${key}/shift+${key}` : key,
    (event) => {
      if (hearers.get(key)?.at(-1) !== mine || !may(event)) return
      event.preventDefault()
      void act()
    },
    // Fields are told apart above: a box that is ticked has no use for a letter.
    { inputs: true, preventDefault: false },
  )
}
