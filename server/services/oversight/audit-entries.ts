import { Op } from 'sequelize'
import type { Instant } from '#core/base/instant.ts'
import type { Parts } from '../../parts.ts'
import type { ChangeSetRow } from '../../store/tables.ts'
import type { Asker } from '../viewer/asker.ts'

interface Wanted<K extends keyof ChangeSetRow> {
  /** Those before this revision; all up to the moment of asking if it is not said. */
  readonly below?: number | undefined
  readonly span?: { readonly [Op.gt]: Instant; readonly [Op.lte]?: Instant }
  readonly attributes: readonly K[]
}

/** Entries of the history, read a few at a time: it may be larger than what memory has room for. */
export async function* newestFirst<K extends keyof ChangeSetRow>(
  { writer }: Parts,
  { workspace, snapshot }: Asker,
  { below = snapshot.state.revision + 1, span, attributes }: Wanted<K>,
): AsyncGenerator<Pick<ChangeSetRow, K | 'revision'>> {
  for (let next = below; ;) {
    const rows = (await writer.tables.changeSets.findAll({
      attributes: ['revision', ...attributes],
      where: { workspace, revision: { [Op.lt]: next }, ...(span === undefined ? {} : { at: span }) },
      order: [['revision', 'DESC']],
      limit: rowsAtOnce,
      raw: true,
    })) as unknown as Pick<ChangeSetRow, K | 'revision'>[]
    yield* rows
    const last = rows.at(-1)
    if (last === undefined || rows.length < rowsAtOnce) return
    next = last.revision
  }
}

const rowsAtOnce = 20
