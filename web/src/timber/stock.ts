import type { StockItem, StockOut } from '../api/types'
import { wordsOf } from '../fields/published'

/** Points as an SVG wants them; the wood's far edge is up. */
export const corners = (points: readonly (readonly number[])[]): string =>
  points.map(([x = 0, y = 0]) => `${x},${-y}`).join(' ')

type Item = StockOut['item']

/** The corners of a piece of wood seen from above, mm in its own frame. */
export function outlineOf(item: Item): [number, number][] {
  if (item.kind === 'slab') return item.outline.map((p) => [num(p.x), num(p.y)])
  if (item.kind === 'board') return box(num(item.length), num(item.width))
  if (item.kind === 'log') {
    const [small, large, long] = [num(item.small_end), num(item.large_end), num(item.length)]
    const wide = large || small
    return [
      [0, 0],
      [long, (wide - small) / 2],
      [long, (wide + small) / 2],
      [0, wide],
    ]
  }
  const [thick, thin, long] = [num(item.thick_end), num(item.thin_end), num(item.length)]
  return [
    [0, 0],
    [long, (thick - thin) / 2],
    [long, (thick + thin) / 2],
    [0, thick],
  ]
}
const box = (x: number, y: number): [number, number][] => [
  [0, 0],
  [x, 0],
  [x, y],
  [0, y],
]
const num = (value: unknown): number => Number(value ?? 0)

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** The room points take, mm. */
export function roomOf(points: readonly (readonly number[])[]): Box {
  const xs = points.map((p) => p[0] ?? 0)
  const ys = points.map((p) => p[1] ?? 0)
  const [x, y] = [Math.min(...xs), Math.min(...ys)]
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y }
}

export const KINDS = wordsOf('Pile', 'items', 'Pile') as {
  value: StockItem['kind']
  title: string
}[]

/** Measures one after another, a unit that all share said once. */
export function times(sizes: readonly { text: string }[]): string {
  const texts = sizes.map((one) => one.text)
  if (!texts.every((text) => text.endsWith(' mm'))) return texts.join(' × ')
  return `${texts.map((text) => text.slice(0, -3)).join(' × ')} mm`
}
