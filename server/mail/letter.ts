import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Parts } from '../parts.ts'
import type { MailRow } from '../store/tables.ts'

interface Letter {
  readonly workspace: WorkspaceId
  readonly to: string
  readonly subject: string
  /** One paragraph each; an address alone on its line becomes a link. */
  readonly lines: readonly string[]
  readonly at: Instant
}

/** A mail that waits to be sent, as plain text and as HTML of the same words. */
export const letter = (parts: Parts, { workspace, to, subject, lines, at }: Letter): MailRow => ({
  workspace,
  id: parts.newId(),
  to,
  subject,
  text: lines.join('\n\n'),
  html: htmlOf(lines),
  madeAt: at,
  sentAt: null,
  tries: 0,
  nextTryAt: at,
})

function htmlOf(lines: readonly string[]): string {
  const escaped = lines.map(line => line.replace(/[&<>"]/g, sign => `&#${sign.charCodeAt(0)};`))
  const linked = escaped.map(line =>
    /^https?:/.test(line) ? `<a href="${line}">${line}</a>` : line.replace(/\n/g, '<br>'),
  )
  return linked.map(line => `<p>${line}</p>`).join('\n')
}
