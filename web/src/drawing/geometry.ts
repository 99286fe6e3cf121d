import type { Shape, View } from '../api/types'

/** Points of a run as SVG wants them; drawings have y up, the screen has y down. */
export function points(shape: Shape): string {
  return shape.points.map(([x, y]) => `${x},${-y}`).join(' ')
}

/** The SVG viewBox of a drawing's box. */
export function viewBox([left, bottom, right, top]: View['box']): string {
  return `${left} ${-top} ${right - left} ${top - bottom}`
}

/**
 * The frame of a drawing while something is held: it stays as it is as long as all is in it, and goes out
 * in a step where something comes out of it, not a little with every move.
 */
export function stretched(frame: View['box'], box: View['box']): View['box'] {
  const room = STEP * Math.max(box[2] - box[0], box[3] - box[1])
  const out = (of: number, now: number, way: 1 | -1): number =>
    (now - of) * way > 0 ? now + way * room : of
  return [
    out(frame[0], box[0], -1),
    out(frame[1], box[1], -1),
    out(frame[2], box[2], 1),
    out(frame[3], box[3], 1),
  ]
}
const STEP = 0.06

/** Millimetres of the drawing to one pixel of the screen, for a drawing fitted into a frame. */
export function mmPerPixel(box: View['box'], width: number, height: number): number {
  if (!width || !height) return 1
  return Math.max((box[2] - box[0]) / width, (box[3] - box[1]) / height)
}

/** A picture under a drawing: its middle, its size, both mm of the drawing; turned counter-clockwise. */
export interface Underlay {
  href: string
  x: number
  y: number
  width: number
  height: number
  /** degrees */
  turn: number
}
