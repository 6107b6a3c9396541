import type { NodeId, PersonId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import type { RecordConduct } from '../../changes/conduct.ts'
import { lacksAction } from '../../changes/context.ts'
import { id, principals } from '../../records/references.ts'
import type { Principal } from '../../rules/principal.ts'
import type { RecordShape } from '../../state/shape.ts'
import type { RecordWords } from '../../words/audit-event.ts'

/** A kind of record that no product has: something that somebody leaves at a place, for some to play with, for a while. */
export interface Toy {
  readonly id: string
  readonly node: NodeId
  readonly owner: PersonId
  readonly name: string
  readonly players: readonly Principal[] | null
  readonly until: Instant | null
}

/** As a kind of the core says it; what it is called is not in the list of kinds. */
type Of<Kind> = { readonly [Part in keyof Kind]: unknown }

interface Changed {
  readonly before: Toy | null
  readonly after: Toy | null
}

export const toys = {
  fields: {
    id: 'text',
    node: 'text',
    owner: 'text',
    name: 'text',
    players: 'json',
    until: 'number',
  },
  indexes: { node: (row: Toy) => row.node },
  references: [
    id<Toy>('node', 'nodes', { whenGone: 'goes along', index: 'node' }),
    id<Toy>('owner', 'persons', { whenGone: 'goes along' }),
    ...principals<Toy>('players', {
      of: ({ players }) => players ?? [],
      without: (row, isGone) => ({ ...row, players: row.players?.filter(each => !isGone(each)) ?? null }),
    }),
  ],
  dates: { ends: ({ until }: Toy) => until },
  rights: (context: Parameters<RecordConduct['rights']>[0], before: Toy | null, after: Toy | null) => {
    const node = (after ?? before)?.node
    return node === undefined ? undefined : lacksAction(context, node, 'change')
  },
  about: ({ before, after }: Changed) => ({ category: 'places', place: (after ?? before)?.node }),
  standsAt: (row: Toy) => row.node,
  words: ({ before, after }: Changed) =>
    before === null
      ? `left the toy ${after?.name ?? ''}`
      : `${after === null ? 'took away' : 'changed'} the toy ${before.name}`,
} satisfies Of<RecordShape & RecordConduct & RecordWords>
