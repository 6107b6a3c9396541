import { stringify } from 'csv-stringify/browser/esm/sync'
import { harmless } from '#contract/cells.ts'
import type { Table } from '../../workers/table.ts'

/** Saves a table with what became of each of its rows beside it. */
export function saveResults(file: string, { heads, rows }: Table, results: readonly string[]): void {
  const lines = results.map((result, index) => [...(rows[index] ?? []), result].map(harmless))
  const csv = stringify([[...heads, 'Result'], ...lines], { bom: true, record_delimiter: 'windows' })
  const address = URL.createObjectURL(new Blob([csv], { type: 'text/csv' }))
  const link = document.createElement('a')
  link.href = address
  link.download = `${file.replace(/\.[^.]*$/, '')}, result.csv`
  link.click()
  URL.revokeObjectURL(address)
}
