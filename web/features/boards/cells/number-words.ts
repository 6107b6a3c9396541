import type { Usage } from '#core/boards/kind.ts'

/** A number as it is shown: thousands apart by a narrow space, as no country reads it otherwise. */
export function groupedNumber(value: number, places: number, { decimal }: Pick<Usage, 'decimal'>): string {
  const [whole = '', rest] = value.toFixed(places).split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f')
  return rest === undefined ? grouped : `${grouped}${decimal}${rest}`
}
