import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { seededInto } from './server.ts'

/** The demo is made once; every server of the journeys starts on a copy of its own. */
export default async function makeTemplate(): Promise<() => void> {
  const folder = mkdtempSync(join(tmpdir(), 'noskel-template-'))
  await seededInto(folder)
  process.env['DEMO_TEMPLATE'] = folder
  return () => rmSync(folder, { recursive: true, force: true })
}
