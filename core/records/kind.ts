import type { RecordConduct } from '../changes/conduct.ts'
import type { TableName } from '../state/kinds.ts'
import type { RecordShape } from '../state/shape.ts'
import type { RecordWords } from '../words/audit-event.ts'

/** All that there is to say of a kind of record. */
export type RecordKind<T extends TableName> = RecordShape<T> & RecordConduct<T> & RecordWords<T>

/** The fields of what counts for a span. */
export const spanFields = { from: 'number', until: 'number' } as const
