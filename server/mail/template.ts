import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Parts } from '../parts.ts'
import type { MailRow } from '../store/tables.ts'

/** A paragraph, in which people may have written; or an address of our own, which alone becomes a link. */
export type Line = string | { readonly address: string }

interface Letter {
  readonly workspace: WorkspaceId
  readonly to: string
  readonly subject: string
  readonly lines: readonly Line[]
  readonly at: Instant
}

/** A mail that waits to be sent, as plain text and as HTML of the same words. */
export const letter = (parts: Parts, { workspace, to, subject, lines, at }: Letter): MailRow => ({
  workspace,
  id: parts.newId(),
  to,
  subject: inOneLine(subject),
  text: lines.map(line => (typeof line === 'string' ? withoutLinks(line) : line.address)).join('\n\n'),
  html: lines.map(htmlOf).join('\n'),
  madeAt: at,
  sentAt: null,
  tries: 0,
  nextTryAt: at,
})

/** A line break in a subject could begin another header. */
const inOneLine = (text: string): string => withoutLinks(text.replace(/\s+/gu, ' ').trim())

/**
 * Mail programs make links of whatever looks like an address. A space without width, in what people wrote, keeps it the
 * text that it is: whoever invites somebody sends them nowhere in our name.
 */
const withoutLinks = (text: string): string =>
  text.replace(
    /(?<=[a-z0-9+.-]:)(?=\/\/)|(?<=[\p{L}\p{N}])(?=\.[\p{L}\p{N}])|(?<=[\p{L}\p{N}])(?=@)/giu,
    '\u200b',
  )

function htmlOf(line: Line): string {
  if (typeof line !== 'string')
    return `<p><a href="${escaped(line.address)}">${escaped(line.address)}</a></p>`
  return `<p>${escaped(withoutLinks(line)).replace(/\r?\n/g, '<br>')}</p>`
}

const escaped = (text: string): string => text.replace(/[&<>"']/g, sign => `&#${sign.charCodeAt(0)};`)

/** A mail that was handed over, without the links in it: who reads the database later opens nothing with them. */
export const withoutTokens = (text: string): string =>
  text.replace(/(https?:\/\/[^\s"<#]+)#[^\s"<]+/g, '$1#…')
