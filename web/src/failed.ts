import { type App, ref } from 'vue'

import { Away, Refused } from './api/client'

/** What nobody else caught, in words for the maker; empty where nothing failed. */
export const failed = ref('')

/** What a thing that was thrown is to the maker. */
export function wordsOf(thrown: unknown): string {
  if (thrown instanceof Away) return 'The workshop does not answer: try it again.'
  if (thrown instanceof Refused) return thrown.problem.detail
  const said = thrown instanceof Error ? `${thrown.name}: ${thrown.message}` : String(thrown)
  return (
    'This page failed at something, through no fault of yours. What was entered before is kept. ' +
    `Load the page anew; if it fails again, this is what to pass on: ${said}`
  )
}

/**
 * Where everything ends that nobody caught: what is thrown in a component, by an answer nobody waits for, by
 * the page itself. It stands on the console too.
 */
export function catchAll(app: App): void {
  app.config.errorHandler = (thrown) => {
    console.error(thrown)
    failed.value = wordsOf(thrown)
  }
  addEventListener('unhandledrejection', (event) => (failed.value = wordsOf(event.reason)))
  // Without a thing thrown it is the browser's own word, on a layout that took two turns: nothing failed.
  addEventListener('error', (event) => {
    if (event.error) failed.value = wordsOf(event.error)
  })
}
