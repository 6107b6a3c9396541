import type { Usage } from '#core/boards/kind.ts'
import { fold } from '#core/base/fold-words.ts'
import { allRows, rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { type Snapshot, type State, workspaceOf } from '#core/state/state.ts'
import { clockOf, type PlainUsage, usageFrom } from '../../boards/plain-usage.ts'
import { type Asker, knowsPerson, maySee, nameOf } from '../viewer/asker.ts'

interface Written {
  readonly decimal?: Usage['decimal']
  readonly isDayFirst?: boolean
  /** Places by folded name, looked for before: to look for one takes its time. */
  readonly places?: ReadonlyMap<string, NodeId>
}

/** For an asker: names are of those whom they may know. */
export function usageFor(
  asker: Asker,
  { decimal = '.', isDayFirst = true, places = new Map() }: Written = {},
): Usage {
  const { snapshot } = asker
  return {
    ...clockOf(workspaceOf(snapshot.state).timeZone, snapshot.at),
    decimal,
    isDayFirst,
    personOf: name => {
      const ids = peopleNamed(snapshot.state).get(fold(name.trim())) ?? []
      const known = ids.filter(id => knowsPerson(asker, id))
      return known.length === 1 ? known[0] : undefined
    },
    placeOf: name => places.get(fold(name.trim())),
    nameOf: id => knownName(asker, id),
  }
}

/** The name of a person or a place that an asker may know; `undefined` for anything else. */
export function knownName(asker: Asker, id: string): string | undefined {
  const { state } = asker.snapshot
  if (rowOf(state.persons, id as PersonId) !== undefined)
    return knowsPerson(asker, id as PersonId) ? nameOf(asker.snapshot, id as PersonId) : undefined
  return maySee(asker, id as NodeId) ? rowOf(state.nodes, id as NodeId)?.name : undefined
}

/** For what a column was before it became another kind: whoever reads it now reads the names that there were. */
export function usageOfAll(snapshot: Snapshot): Usage {
  const known = usages.get(snapshot) ?? usageFrom(plainUsageOf(snapshot))
  usages.set(snapshot, known)
  return known
}

const usages = new WeakMap<Snapshot, Usage>()

const plain = new WeakMap<State['persons'], Pick<PlainUsage, 'names' | 'people'>>()

export function plainUsageOf({ state, at }: Snapshot): PlainUsage {
  const known = plain.get(state.persons) ?? {
    names: new Map(allRows(state.persons).map(({ id, name, mail }) => [id, name || mail])),
    people: new Map(
      [...peopleNamed(state)].flatMap(([word, ids]) =>
        ids.length === 1 ? [[word, ids[0] ?? ''] as const] : [],
      ),
    ),
  }
  plain.set(state.persons, known)
  return { timeZone: workspaceOf(state).timeZone, at, ...known }
}

const named = new WeakMap<State['persons'], ReadonlyMap<string, readonly PersonId[]>>()

/** By folded name, handle and address. */
function peopleNamed({ persons }: State): ReadonlyMap<string, readonly PersonId[]> {
  const known = named.get(persons)
  if (known !== undefined) return known
  const found = new Map<string, PersonId[]>()
  for (const person of allRows(persons)) {
    if (person.status === 'removed') continue
    for (const word of new Set([person.name, person.mail, `@${person.handle ?? ''}`].map(each => fold(each))))
      if (word !== '' && word !== '@') found.set(word, [...(found.get(word) ?? []), person.id])
  }
  named.set(persons, found)
  return found
}
