import { ok, refused } from '../../base/result.ts'
import type { ColumnKind } from '../kind.ts'
import { countTexts } from '../tallies.ts'
import { orderedText } from '../words.ts'
import { type NoSettings, noSettings, textFilters } from './text.ts'

const longest = 2000

/** Of these a page makes a link; anything else is none, whatever it looks like. */
const forms = [
  /^https?:\/\/[^\s/?#@]+\.?[^\s]*$/i,
  /^mailto:[^\s@,;?]+@[^\s@,;?]+$/i,
  /^tel:\+?[\d().-]{3,40}$/i,
]

export const isLink = (value: unknown): value is string =>
  typeof value === 'string' &&
  value.length <= longest &&
  !/[\p{Cc}"<>\\^`{|}]/u.test(value) &&
  forms.some(form => form.test(value))

/** What people leave out. */
function completed(written: string): string {
  if (/^[^\s@:/]+@[^\s@:/]+\.[^\s@:/]+$/.test(written)) return `mailto:${written}`
  if (/^\+?[\d ().-]{6,}$/.test(written)) return `tel:${written.replaceAll(' ', '')}`
  return /^[\w-]+(\.[\w-]+)+([/?#:].*)?$/.test(written) ? `https://${written}` : written
}

export const link: ColumnKind<'text', NoSettings> = {
  kind: 'link',
  version: 1,
  isWritten: true,
  form: 'text',
  settings: noSettings,
  parse: text => {
    const written = text.trim()
    if (written === '') return ok(null)
    const address = completed(written)
    return isLink(address)
      ? ok(address)
      : refused('This is not the address of a page (https), a mail address or a telephone number.')
  },
  words: value => String(value),
  fits: isLink,
  hold: value => String(value),
  stored: held => (held === '' ? null : held),
  orderOf: held => orderedText(held.replace(/^\w+:(\/\/)?(www\.)?/i, '').slice(0, 200)),
  filters: textFilters,
  totals: countTexts,
}
