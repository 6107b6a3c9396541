import { setTimeout as pause } from 'node:timers/promises'
import { QueryTypes } from 'sequelize'
import { ok } from '#core/base/result.ts'
import type { MailRow } from '../store/tables.ts'
import { rowsOnly } from '../store/commit.ts'
import type { Follower } from '../store/log.ts'
import { submit } from '../store/writer.ts'
import type { Parts } from '../parts.ts'
import { withoutTokens } from './template.ts'
import type { Post } from './transport.ts'

/**
 * Mails lie in the database from the commit that caused them until they are handed over, so a crash
 * repeats rather than loses them. A mail that was refused is tried again, later each time.
 */
export interface Outbox {
  readonly parts: Parts
  readonly post: Post
  running: Promise<void> | null
  timer: NodeJS.Timeout | null
  /** There may be more than the last round has read. */
  isStale: boolean
}

const mostAtOnce = 50
/** So long mails wait for those of the next commits, in milliseconds: they go out, and are noted, together. */
const gathering = 100

export function startOutbox(parts: Parts, post: Post): Outbox {
  const outbox: Outbox = { parts, post, running: null, timer: null, isStale: false }
  outbox.timer = setInterval(() => wake(outbox), 15_000).unref()
  return outbox
}

/** Looks for mails when some are written. */
export const followerOfMails = (outbox: Outbox): Follower => ({
  load: () => wake(outbox),
  hear: ({ news }) => {
    if (news.some(each => each.of === 'mails')) wake(outbox)
  },
})

/** Waits for the mail on its way; what is left goes out at the next start. */
export async function stopOutbox(outbox: Outbox): Promise<void> {
  if (outbox.timer !== null) clearInterval(outbox.timer)
  await outbox.running
}

function wake(outbox: Outbox): void {
  outbox.isStale = true
  outbox.running ??= run(outbox).finally(() => {
    outbox.running = null
  })
}

async function run(outbox: Outbox): Promise<void> {
  const { writer, clock } = outbox.parts
  while (outbox.isStale) {
    await pause(gathering)
    outbox.isStale = false
    // By a statement of our own: a finder of sequelize's asks for the columns of the table first, each time.
    const due: readonly MailRow[] = await writer.tables.database.query<MailRow>(
      'SELECT * FROM "mails" WHERE "sentAt" IS NULL AND "nextTryAt" <= $now ORDER BY "id" LIMIT $most',
      { type: QueryTypes.SELECT, bind: { now: clock(), most: mostAtOnce } },
    )
    if (due.length === mostAtOnce) outbox.isStale = true
    const noted: Promise<unknown>[] = []
    for (const mail of due) noted.push(note(outbox.parts, mail.id, await sendOne(outbox, mail)))
    await Promise.all(noted)
  }
}

/** What is to be noted of it then. */
async function sendOne({ parts, post }: Outbox, mail: MailRow): Promise<Partial<MailRow>> {
  const { id, to, subject, text, html } = mail
  try {
    // As an address, not as a list of them to be read.
    await post({ messageId: `<${id}@noskel>`, to: { name: '', address: to }, subject, text, html })
    return { sentAt: parts.clock(), ...(parts.config.isDemo ? {} : emptied(mail)) }
  } catch (error) {
    parts.log.warn({ mail: id, reason: (error as Error).message }, 'a mail could not be sent')
    const tries = mail.tries + 1
    const minutes = Math.min(2 ** tries, 240)
    return { tries, nextTryAt: parts.clock() + minutes * 60_000 }
  }
}

/** The demo shows what was sent; elsewhere nobody needs its links any more. */
const emptied = ({ text, html }: MailRow) => ({ text: withoutTokens(text), html: withoutTokens(html) })

/** Where it could not be noted the mail goes out again. */
const note = (parts: Parts, id: string, fields: Partial<MailRow>) =>
  submit(parts.writer, () => ok(rowsOnly({ kind: 'update', table: 'mails', where: { id }, fields }))).catch(
    (error: unknown) =>
      parts.log.error({ mail: id, err: error as Error }, 'a mail that was sent could not be noted'),
  )
