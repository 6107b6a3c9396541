import { rowOf } from '../../base/collection.ts'
import type { HandleId, PersonId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { State } from '../../state/state.ts'
import type { Context, Outcome } from '../context.ts'

/** Lower case, so that each is written in one way only. */
const shape = /^[a-z0-9](?:[a-z0-9._-]{0,28}[a-z0-9])$/

/** Makes a handle a person's: nobody else's, now or earlier. One's own old ones can be taken up again. */
export function claimHandle({ now }: Context, person: PersonId, id: HandleId): Outcome {
  if (!shape.test(id)) return refused({ code: 'wrong-handle' })
  const claimed = rowOf(now.state.handles, id)
  if (claimed !== undefined)
    return claimed.person === person ? ok([]) : refused({ code: 'already-there', what: 'handle' })
  return ok([{ table: 'handles', id, before: null, after: { id, person, since: now.at } }])
}

/** A handle that is free, made from a name: "Aino Vuori" is aino.vuori, the next one aino.vuori2. */
export function freeHandle(state: State, name: string, isTaken: (id: HandleId) => boolean = () => false) {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '.')
    .replace(/^\.+|\.+$/g, '')
    .slice(0, 24)
    .replace(/\.+$/, '')
  const stem = plain.length < 2 ? 'person' : plain
  for (let count = 1; ; count += 1) {
    const id = (count === 1 ? stem : `${stem}${count}`) as HandleId
    if (rowOf(state.handles, id) === undefined && !isTaken(id)) return id
  }
}
