import { inject, type InjectionKey } from 'vue'

import type { Fault } from '../api/types'
import { pieceHost } from '../piece/host'
import type { Root } from './published'

/** The document a form stands for: what is in it, what is wrong with it, how it is changed. */
export interface Host {
  /** Its name among the published documents. */
  root: Root
  document: () => unknown
  /** What a typed field reads, in the maker's units. */
  text: (path: string) => string
  fault: (path: string) => Fault | undefined
  /** Put a value, typed or chosen, at a place of it. */
  set: (path: string, value: unknown, turning?: boolean) => unknown
  /** Anything that is new with every answer. */
  stamp: () => unknown
  /** Whether what was typed last is on its way; whether it waits for a workshop that is away. */
  busy?: (path: string) => boolean
  waiting?: (path: string) => boolean
  /** What is cautioned about what stands there. */
  caution?: (path: string) => string
}

/** Whoever shows a form of another document than the open piece provides it here. */
export const HOST: InjectionKey<Host> = Symbol('the document a form stands for')
export const useHost = (): Host => inject(HOST, pieceHost, true)
