import createClient, { type Middleware } from 'openapi-fetch'

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

/** The server answered that something is wrong. */
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
    throw new Away('The workshop does not answer.')
  }
  const { data, error, response } = answer
  if (response.ok) return data as T
  if (response.status === 401) {
    dispatchEvent(new Event(SIGNED_OUT))
    throw new SignedOut('Nobody is signed in any more.')
  }
  if (response.status >= 500) throw new Away('The workshop is busy.')
  throw new Refused(
    (error as Problem | undefined) ?? {
      type: 'about:blank',
      title: 'Refused',
      status: response.status,
      detail: 'The workshop refused.',
      faults: [],
    },
  )
}
