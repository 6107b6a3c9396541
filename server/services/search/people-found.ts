import { setImmediate } from 'node:timers/promises'
import type { SearchView } from '#contract/views/search.ts'
import { eachRow } from '#core/base/collection.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { beginsIn, fold, placesOf } from '#core/base/fold-words.ts'
import { knowsTeam } from '#core/changes/context.ts'
import type { Person } from '#core/people/person.ts'
import type { State } from '#core/state/state.ts'
import { type Asker, asks, knowsPerson } from '../viewer/asker.ts'

/** So many are told, and so many are folded before others are let in. */
const most = 8
const together = 2000

/** People whom the asker knows, by their names, addresses and what they do. */
export async function peopleFound(asker: Asker, words: readonly string[]): Promise<SearchView['people']> {
  if (words.length === 0) return []
  // A guest knows some by name alone: by what is not told of somebody, they do not find them either.
  const tellsMail = asks(asker, 'view people')
  const isCalled = ({ named, mail }: Called) =>
    words.every(word => beginsIn(named, word) || (tellsMail && beginsIn(mail, word)))
  return (await callings(asker.snapshot.state))
    .filter(each => isCalled(each) && knowsPerson(asker, each.person.id))
    .map(each => each.person)
    .toSorted((a, b) => compareWords(a.name, b.name))
    .slice(0, most)
    .map(({ id, name, kind, mail }) => ({
      id,
      name: { text: name || mail, marks: placesOf(name || mail, words) },
      kind,
      mail: tellsMail ? mail : null,
    }))
}

/** Somebody as they are looked for, folded. */
interface Called {
  readonly person: Person
  readonly named: string
  readonly mail: string
}

/** Folded once for as long as nothing is changed in any of them. */
const folded = new WeakMap<State['persons'], Promise<readonly Called[]>>()

function callings({ persons }: State): Promise<readonly Called[]> {
  const kept = folded.get(persons) ?? foldAll(persons)
  folded.set(persons, kept)
  return kept
}

async function foldAll(persons: State['persons']): Promise<readonly Called[]> {
  const all: Called[] = []
  for (const person of eachRow(persons)) {
    const { name, handle, title, mail, status } = person
    if (status === 'removed') continue
    all.push({ person, named: fold(`${name} ${handle} ${title}`), mail: fold(mail) })
    if (all.length % together === 0) await setImmediate()
  }
  return all
}

export function teamsFound({ snapshot, person }: Asker, words: readonly string[]): SearchView['teams'] {
  if (words.length === 0) return []
  return [...eachRow(snapshot.state.teams)]
    .filter(({ id, name }) => {
      const own = fold(name)
      return words.every(word => beginsIn(own, word)) && knowsTeam(snapshot, person, id)
    })
    .toSorted((a, b) => compareWords(a.name, b.name))
    .slice(0, most)
    .map(({ id, name }) => ({ id, name: { text: name, marks: placesOf(name, words) } }))
}
