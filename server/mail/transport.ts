import { mkdir, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { createTransport, type SendMailOptions } from 'nodemailer'
import type { Config } from '../config.ts'

/** Carries one mail away; rejects if it could not. */
export type Post = (mail: SendMailOptions & { readonly messageId: string }) => Promise<void>

/** SMTP where it is configured; else the built-in mailbox: a folder beside the database, one file a mail. */
export function createPost(config: Config): Post {
  const from = `Noskel <no-reply@${new URL(config.baseUrl).hostname}>`
  if (config.smtpUrl !== null) {
    const smtp = createTransport(config.smtpUrl)
    return async mail => {
      await smtp.sendMail({ from, ...mail })
    }
  }
  const box = join(config.dataDir, 'mailbox')
  const writing = createTransport({ streamTransport: true, buffer: true })
  return async mail => {
    const { message } = await writing.sendMail({ from, ...mail })
    await mkdir(box, { recursive: true, mode: 0o700 })
    const file = join(box, `${mail.messageId.replace(/[^a-z0-9]/g, '')}.eml`)
    // It is there whole or not at all, for who reads the folder, and after a crash.
    await writeFile(`${file}.part`, message as Buffer)
    await rename(`${file}.part`, file)
  }
}
