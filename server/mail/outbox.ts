import { Op } from 'sequelize'
import { ok } from '#core/base/result.ts'
import type { MailRow } from '../store/tables.ts'
import { submit } from '../store/writer.ts'
import type { Parts } from '../parts.ts'
import type { Post } from './post.ts'

/**
 * Mails lie in the database from the commit that caused them until they are handed over, so a crash
 * repeats rather than loses them. A mail that was refused is tried again, later each time.
 */
export interface Outbox {
  readonly parts: Parts
  readonly post: Post
  running: Promise<void> | null
  timer: NodeJS.Timeout | null
  /** Something was written while a round ran: there may be more than that round has read. */
  isStale: boolean
}

export function startOutbox(parts: Parts, post: Post): Outbox {
  const outbox: Outbox = { parts, post, running: null, timer: null, isStale: false }
  parts.writer.afterCommit.push(() => wake(outbox))
  outbox.timer = setInterval(() => wake(outbox), 15_000).unref()
  wake(outbox)
  return outbox
}

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
    outbox.isStale = false
    const due = (await writer.tables.mails.findAll({
      where: { sentAt: null, nextTryAt: { [Op.lte]: clock() } },
      order: [['id', 'ASC']],
      limit: 50,
      raw: true,
    })) as unknown as MailRow[]
    for (const mail of due) await sendOne(outbox, mail)
  }
}

async function sendOne({ parts, post }: Outbox, mail: MailRow): Promise<void> {
  const { id, to, subject, text, html } = mail
  try {
    await post({ messageId: `<${id}@noskel>`, to, subject, text, html })
    await note(parts, id, { sentAt: parts.clock() })
  } catch (error) {
    parts.log.warn({ mail: id, reason: (error as Error).message }, 'a mail could not be sent')
    const tries = mail.tries + 1
    const minutes = Math.min(2 ** tries, 240)
    await note(parts, id, { tries, nextTryAt: parts.clock() + minutes * 60_000 })
  }
}

const note = (parts: Parts, id: string, fields: Partial<MailRow>) =>
  submit(parts.writer, () =>
    ok({
      value: undefined,
      write: async ({ transaction }) => {
        await parts.writer.tables.mails.update(fields, { where: { id }, transaction })
      },
    }),
  )
