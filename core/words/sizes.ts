const units = ['bytes', 'kB', 'MB', 'GB', 'TB'] as const
const step = 1024

/** How large something is, as people say it: two digits, in the unit of which there is one at least (1 kB is 1,024 bytes). */
export function sizeWords(bytes: number): string {
  let size = bytes
  let unit = 0
  while (size >= step && unit < units.length - 1) {
    size /= step
    unit += 1
  }
  if (unit === 0) return size === 1 ? '1 byte' : `${size} bytes`
  // What would be told as a thousand and more of a unit is one of the next.
  if (size >= 999.5 && unit < units.length - 1) return `1 ${units[unit + 1]}`
  return `${size < 10 ? Math.round(size * 10) / 10 : Math.round(size)} ${units[unit]}`
}
