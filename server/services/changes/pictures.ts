import type { ChangeSetRequest } from '#contract/requests.ts'
import type { PictureId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import type { PictureRow } from '../../store/tables.ts'
import { render } from '../../renderer/renderer.ts'
import { rowsOnly } from '../../store/commit.ts'
import { submit } from '../../store/writer.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Asker } from '../viewer/asker.ts'
import { spending } from '../viewer/quota.ts'

/** Keeps a picture cut square and scaled down, without what a camera wrote into it. It is used once an edit names it. */
export async function keepPicture(
  parts: Parts,
  { workspace, person }: Asker,
  bytes: unknown,
): Promise<{ readonly id: string }> {
  if (!Buffer.isBuffer(bytes) || bytes.length === 0) throw problemOf('wrong-picture')
  const conditions = spending(parts, { workspace, who: person, what: 'pictures' })
  const counted = await submit(parts.writer, () => ok({ value: undefined, conditions }))
  if (!counted.ok) throw problemOf(counted.error)
  const { picture } = await render(parts.renderer, person, { kind: 'square', bytes })
  if (picture === undefined) throw problemOf('wrong-picture')
  const data = Buffer.from(picture)
  const id = parts.newId() as PictureId
  const row: PictureRow = { workspace, id, data: data.toString('base64'), by: person, at: parts.clock() }
  await submit(parts.writer, () => ok(rowsOnly({ kind: 'put', table: 'pictures', rows: [row] })))
  return { id }
}

/** The bytes of a picture of the asker's workspace. */
export async function pictureOf(parts: Parts, { workspace }: Asker, id: string): Promise<Buffer> {
  const found = await parts.writer.tables.pictures.findOne({ where: { workspace, id }, raw: true })
  if (found === null) throw problemOf('not-found')
  return Buffer.from((found as unknown as PictureRow).data, 'base64')
}

/** Every picture that edits name is there. */
export async function checkPictures(
  parts: Parts,
  { workspace }: Asker,
  { edits }: ChangeSetRequest,
): Promise<void> {
  const named = new Set(
    edits.flatMap(edit => ('picture' in edit && typeof edit.picture === 'string' ? [edit.picture] : [])),
  )
  if (named.size === 0) return
  const count = await parts.writer.tables.pictures.count({ where: { workspace, id: [...named] } })
  if (count < named.size) throw problemOf('wrong-picture')
}
