import type { Shape, View } from '../api/types'

/** Points of a run as SVG wants them; drawings have y up, the screen has y down. */
export function points(shape: Shape): string {
  return shape.points.map(([x, y]) => `${x},${-y}`).join(' ')
}

/** The SVG viewBox of a drawing's box. */
export function viewBox([left, bottom, right, top]: View['box']): string {
  return `${left} ${-top} ${right - left} ${top - bottom}`
}

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
