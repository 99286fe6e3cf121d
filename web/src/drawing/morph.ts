import type { Shape, View } from '../api/types'

type Point = [number, number]

const mix = (a: number, b: number, t: number): number => a + (b - a) * t
const mixed = (a: Point, b: Point, t: number): Point => [mix(a[0], b[0], t), mix(a[1], b[1], t)]

function middle(ring: Point[]): Point {
  const sum = ring.reduce<Point>((s, p) => [s[0] + p[0], s[1] + p[1]], [0, 0])
  return [sum[0] / ring.length, sum[1] / ring.length]
}

const bearing = (p: Point, m: Point): number => Math.atan2(p[1] - m[1], p[0] - m[0])

/** How far a convex ring's edge is from a point inside it, along a bearing. */
function reach(ring: Point[], m: Point, turn: number): number {
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  let far = 0
  ring.forEach((p, k) => {
    const q = ring[(k + 1) % ring.length] ?? p
    const [ax, ay, bx, by] = [p[0] - m[0], p[1] - m[1], q[0] - p[0], q[1] - p[1]]
    const den = c * by - s * bx
    if (Math.abs(den) < 1e-12) return
    const along = (c * ay - s * ax) / -den
    if (along >= -1e-9 && along <= 1 + 1e-9)
      far = Math.max(far, c * (ax + along * bx) + s * (ay + along * by))
  })
  return far
}

function turned(ring: Point[], m: Point, by: number): Point[] {
  const [c, s] = [Math.cos(by), Math.sin(by)]
  return ring.map(([x, y]) => [
    m[0] + c * (x - m[0]) - s * (y - m[1]),
    m[1] + s * (x - m[0]) + c * (y - m[1]),
  ])
}

/** Bearing of a ring's long way, from the second moments of its area, radians. */
function longWay(ring: Point[]): number {
  const m = middle(ring)
  let [xx, yy, xy] = [0, 0, 0]
  ring.forEach((p, k) => {
    const q = ring[(k + 1) % ring.length] ?? p
    const [ax, ay, bx, by] = [p[0] - m[0], p[1] - m[1], q[0] - m[0], q[1] - m[1]]
    const area = ax * by - ay * bx
    xx += area * (ax * ax + ax * bx + bx * bx)
    yy += area * (ay * ay + ay * by + by * by)
    xy += (area * (2 * ax * ay + ax * by + bx * ay + 2 * bx * by)) / 2
  })
  const sign = Math.sign(xx + yy) || 1
  return Math.atan2(2 * sign * xy, sign * (xx - yy)) / 2
}

/** How far the whole turns in the drawing's plane, by its top, radians. */
function turnBetween(a: View, b: View): number {
  const [one, other] = [a, b].map(
    (view) => view.shapes.find((shape) => shape.layer === 'outline')?.points,
  )
  if (!one || !other) return 0
  const by = longWay(other) - longWay(one)
  return by - Math.PI * Math.round(by / Math.PI)
}

/**
 * A ring between two convex ones, turned on the way: laid over one another first, for else a thin
 * one would swell as it turns. Every corner of either is a corner of it.
 */
function ringBetween(from: Point[], to: Point[], t: number, turn: number): Point[] {
  const [ma, mb] = [middle(from), middle(to)]
  const [a, b] = [turned(from, ma, turn * t), turned(to, mb, -turn * (1 - t))]
  const turns = [...a.map((p) => bearing(p, ma)), ...b.map((p) => bearing(p, mb))].sort(
    (x, y) => x - y,
  )
  const m = mixed(ma, mb, t)
  return turns.map((turn) => {
    const far = mix(reach(a, ma, turn), reach(b, mb, turn), t)
    return [m[0] + far * Math.cos(turn), m[1] + far * Math.sin(turn)]
  })
}

function shapeBetween(a: Shape, b: Shape, t: number, turn: number): Shape {
  const [p, q] = [a.points as Point[], b.points as Point[]]
  if (a.kind === 'area' && p.length > 2 && q.length > 2)
    return { ...a, points: ringBetween(p, q, t, turn) }
  if (p.length !== q.length) return t < 0.5 ? a : b
  return { ...a, points: p.map((one, k) => mixed(one, q[k] ?? one, t)) }
}

/**
 * A drawing part of the way (0 to 1) from one to another of the same things: its outlines are
 * convex, and what stands in only one of the two is shown while that one is nearer.
 */
export function between(a: View, b: View, t: number): View {
  if (t <= 0) return a
  if (t >= 1) return b
  const seen = new Map<string, number>()
  const keyed = (shape: Shape): string => {
    const key = `${shape.kind} ${shape.layer} ${shape.part}`
    const n = (seen.get(key) ?? 0) + 1
    seen.set(key, n)
    return `${key} ${n}`
  }
  const others = new Map(b.shapes.map((shape) => [keyed(shape), shape]))
  seen.clear()
  const turn = turnBetween(a, b)
  const shapes = a.shapes.flatMap((shape) => {
    const other = others.get(keyed(shape))
    if (!other) return t < 0.5 ? [shape] : []
    return [shapeBetween(shape, other, t, turn)]
  })
  const box = a.box.map((v, k) => mix(v, b.box[k] ?? v, t)) as View['box']
  return { ...a, shapes, box }
}
