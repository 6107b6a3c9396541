import { refused } from '../../base/result.ts'
import type { ColumnKind } from '../kind.ts'
import { countNumbers } from '../tallies.ts'
import { numberFilters } from './number.ts'

export interface SerialSettings {
  readonly prefix: string
}

const prefixLength = 20

/** The number that a row was given when it was made: once on its board, and never edited. */
export const serialNumber: ColumnKind<'number', SerialSettings> = {
  kind: 'serial number',
  version: 1,
  isWritten: false,
  form: 'number',
  settings: {
    plain: { prefix: '' },
    wrong: settings => {
      const { prefix, ...rest } = Object(settings) as Partial<SerialSettings>
      const isFit =
        typeof prefix === 'string' && prefix.length <= prefixLength && Object.keys(rest).length === 0
      return isFit ? undefined : `A prefix has ${prefixLength} characters at most.`
    },
  },
  parse: () => refused('A serial number is given once, and is not edited.'),
  words: (value, { prefix }) => `${prefix}${Number(value) < 10 ? '0' : ''}${Number(value)}`,
  fits: (value): value is number => Number.isSafeInteger(value) && Number(value) > 0,
  hold: Number,
  stored: held => (Number.isNaN(held) ? null : held),
  orderOf: held => held,
  filters: numberFilters.filter(({ word }) => word === '=' || word === 'between'),
  totals: countNumbers,
}
