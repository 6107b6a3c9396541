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
  const numbered = (count: number) => (count === 1 ? stem : `${stem}${count}`) as HandleId
  const isFree = (count: number) =>
    rowOf(state.handles, numbered(count)) === undefined && !isTaken(numbered(count))
  for (let count = 1; count <= countedThrough; count += 1) if (isFree(count)) return numbered(count)
  let taken = countedThrough
  let free = 2 * taken
  for (; !isFree(free); free *= 2) taken = free
  while (free - taken > 1) {
    const between = Math.floor((taken + free) / 2)
    if (isFree(between)) free = between
    else taken = between
  }
  return numbered(free)
}

/** Of more of one name, not each is looked at: the next in a row of thousands is found at once. */
const countedThrough = 20
