/** Whether two values as they are stored (of plain data) are the same, whatever the order of their fields. */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const fields = Object.keys(a)
  return (
    fields.length === Object.keys(b).length &&
    fields.every(field => isSame((a as Fields)[field], (b as Fields)[field]))
  )
}

type Fields = Readonly<Record<string, unknown>>
