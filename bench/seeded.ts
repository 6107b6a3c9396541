import { createHash } from 'node:crypto'
import { cpSync, existsSync, mkdtempSync, readFileSync, renameSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { sizes } from '#demo/large.ts'
import type { Config } from '#server/config.ts'
import { seedLarge } from '../scripts/seed-large.ts'

const root = resolve(import.meta.dirname, '..')

/** What is made depends on how it is made: files of other makings are left alone. */
const making = createHash('sha256')
  .update(readFileSync(join(root, 'demo/large.ts')))
  .digest('hex')
  .slice(0, 8)

export const configFor = (dataDir: string): Config => ({
  dataDir,
  port: 0,
  host: '127.0.0.1',
  baseUrl: 'http://localhost',
  smtpUrl: null,
  isDemo: true,
})

/** A folder with a workspace of a size to do as one likes with; filling one the first time takes minutes for L. */
export async function copyOfLarge(name: keyof typeof sizes): Promise<string> {
  const kept = join(root, '.data/bench', `${name}-${making}`)
  if (!existsSync(kept)) {
    const filling = `${kept}-filling-${process.pid}`
    await seedLarge(configFor(filling), sizes[name], () => {})
    renameSync(filling, kept)
  }
  const copy = mkdtempSync(join(tmpdir(), 'noskel-bench-'))
  cpSync(kept, copy, { recursive: true })
  return copy
}
