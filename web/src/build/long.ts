/** Minutes in words: "35 min", "2 h 10 min". */
export function long(minutes: number): string {
  const whole = Math.round(minutes)
  if (whole < 60) return `${whole} min`
  const rest = whole % 60
  return `${Math.floor(whole / 60)} h${rest ? ` ${rest} min` : ''}`
}

/** A running count: "4:07", "1:02:30". */
export function count(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds))
  const two = (value: number): string => String(value).padStart(2, '0')
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60]
  return h ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`
}

/** When something is: the time of day, with the day where it is not today. */
export function when(iso: string, now = new Date()): string {
  const at = new Date(iso)
  const time = at.toLocaleTimeString([], {
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  })
  if (at.toDateString() === now.toDateString()) return time
  const day = at.toLocaleDateString([], { weekday: 'short', day: 'numeric', month: 'short' })
  return `${day}, ${time}`
}
