import { type AuditCategory, auditCategories } from '#core/changes/audit-event.ts'

/** What of the history is shown; stands in the address, so that other screens can lead to it. */
export interface HistoryFilter {
  readonly person?: string
  readonly place?: string
  readonly category?: AuditCategory
}

export function filterIn(params: URLSearchParams): HistoryFilter {
  const person = params.get('person')
  const place = params.get('place')
  const category = auditCategories.find(each => each === params.get('category'))
  return {
    ...(person === null ? {} : { person }),
    ...(place === null ? {} : { place }),
    ...(category === undefined ? {} : { category }),
  }
}

export const paramsOf = (filter: HistoryFilter): Record<string, string> => ({ ...filter })

export const without = (filter: HistoryFilter, field: keyof HistoryFilter): HistoryFilter =>
  Object.fromEntries(Object.entries(filter).filter(([name]) => name !== field))
