import { records } from '../../records/all.ts'
import type { RecordShapes } from '../../state/shape.ts'
import { toys } from './toys.ts'

/** All kinds, and one more: what the table of kinds would be with it. */
export const withToys = { ...records, toys } as unknown as RecordShapes
