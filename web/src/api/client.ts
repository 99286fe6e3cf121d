import createClient, { type Middleware } from 'openapi-fetch'
import { ref } from 'vue'

import type { paths } from './schema'
import type { Problem } from './types'

const token: Middleware = {
  onRequest({ request }) {
    const found = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)
    if (found?.[1]) request.headers.set('X-CSRFToken', found[1])
    return request
  },
}

export const api = createClient<paths>({ baseUrl: location.origin })
api.use(token)

/** The server could not be reached: nothing is wrong with what was sent. */
export class Away extends Error {}

/** Nobody is signed in any more: what was sent is kept, like when the server is away. */
export class SignedOut extends Away {}

export const SIGNED_OUT = 'proud-rake:signed-out'

/** What stands between the page and a workshop that is not there, or that asks to be asked again. */
const AWAY = [502, 503, 504, 507]

/** Why the workshop is away, where it said so itself; empty where it did not answer at all. */
export const whyAway = ref('')

/** The server answered that something is wrong: with what was asked, or (500) with itself. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

type Answer<T> = { data?: T; error?: unknown; response: Response }

/** The answer's data; throws Refused for a problem and Away when nobody answered. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await call
  } catch {
    whyAway.value = ''
    throw new Away('The workshop does not answer.')
  }
  const { data, error, response } = answer
  if (response.ok) return data as T
  if (response.status === 401) {
    dispatchEvent(new Event(SIGNED_OUT))
    throw new SignedOut('Nobody is signed in any more.')
  }
  if (AWAY.includes(response.status)) {
    whyAway.value = response.status === 507 ? 'the disk of the workshop is full' : ''
    throw new Away('The workshop is busy.')
  }
  throw new Refused(isProblem(error) ? error : nameless(response.status))
}

function isProblem(error: unknown): error is Problem {
  return typeof error === 'object' && error !== null && 'detail' in error && 'status' in error
}

/** For an answer without a word in it, which is one all the same: what was asked is not on its way. */
function nameless(status: number): Problem {
  const what = `The workshop answered ${status} without a reason.`
  const todo = 'Nothing saved is lost: choose another way, or ask again later.'
  const said = `${what} ${todo}`
  const fault = { field: '', got: '', allowed: what, do: todo, what: '', said }
  const title = 'Refused'
  return { type: 'about:blank', title, status, detail: said, faults: [fault] }
}
