import { type ActionSet, beyond } from '../levels/action.ts'
import { theWeb } from '../access/public.ts'
import { nameOfActions } from '../levels/level.ts'
import type { Privilege } from '../levels/privilege.ts'
import { privilegesListed } from './privilege.ts'

/** One person at a place, before and after; whatever names the two. */
export interface Told {
  readonly person: string
  readonly place: string
  /** How many places it speaks of. */
  readonly places: number
  readonly before: ActionSet
  readonly after: ActionSet
}

/**
 * What a change does, in one line: "3 people gain Reader on 12 places; nobody loses anything." Where its
 * reader may not know of all that it does, nothing is said of nobody.
 */
export function impactInWords(differences: readonly Told[], isWhole: boolean): string {
  if (differences.length === 0)
    return isWhole ? 'Nobody’s access changes.' : 'No access changes where you can see it.'
  const gains = sentenceFor(
    'gain',
    differences.filter(each => beyond(each.after, each.before).length > 0),
  )
  const losses = sentenceFor(
    'lose',
    differences.filter(each => beyond(each.before, each.after).length > 0),
  )
  const nobody = (does: string) => (isWhole ? [`nobody ${does} anything`] : [])
  const parts = [...(gains ?? nobody('gains')), ...(losses ?? nobody('loses'))]
  const line = `${parts.join('; ')}.`
  return line.charAt(0).toUpperCase() + line.slice(1)
}

function sentenceFor(verb: 'gain' | 'lose', told: readonly Told[]): [string] | undefined {
  if (told.length === 0) return undefined
  const people = new Set<string>(told.map(each => each.person))
  const counts = new Map(told.map(each => [each.place, each.places]))
  const places = [...counts.values()].reduce((sum, each) => sum + each, 0)
  const who = whoOf(verb, people.delete(theWeb), people.size)
  return [`${who} ${whatOf(verb, told)} on ${places === 1 ? '1 place' : `${places} places`}`]
}

/** Visitors without an account count as nobody among the people: they are everybody. */
function whoOf(verb: 'gain' | 'lose', isWeb: boolean, people: number): string {
  if (isWeb && people === 0) return `anybody on the web ${verb}s`
  const counted = people === 1 ? '1 person' : `${people} people`
  if (isWeb) return `${counted} and anybody on the web ${verb}`
  return people === 1 ? `${counted} ${verb}s` : `${counted} ${verb}`
}

/** The level that they come to have, where it is the same for all; of a loss, how much of it. */
function whatOf(verb: 'gain' | 'lose', told: readonly Told[]): string {
  const [only, ...others] = new Set(told.map(each => nameOfActions(each.after).name))
  const level = only !== undefined && others.length === 0 ? only : undefined
  if (verb === 'gain') return level ?? 'access'
  const gone = told.filter(each => each.after === 0).length
  if (gone === told.length) return 'all access'
  if (gone > 0) return 'some or all access'
  return level === undefined ? 'some access' : `some access, down to ${level},`
}

/** What somebody may do more and no longer over some people; whatever names them. */
export interface ToldPower {
  readonly person: string
  /** Over whom; `null` for the whole workspace. */
  readonly over: string | null
  readonly gains: readonly Privilege[]
  readonly loses: readonly Privilege[]
}

/** “3 people may now invite members over the people of Boats; 1 person may no longer suspend people.” */
export function powersInWords(told: readonly ToldPower[]): string {
  const parts = [
    ...powerSentences('may now', told, each => each.gains),
    ...powerSentences('may no longer', told, each => each.loses),
  ]
  if (parts.length > 4) {
    const people = new Set(told.map(each => each.person)).size
    return `What ${people} people may do in the workspace changes, in ${parts.length} ways.`
  }
  return parts.length === 0 ? '' : `${parts.join('; ')}.`
}

/** One sentence for all who gain, or lose, just the same. */
function powerSentences(
  verb: string,
  told: readonly ToldPower[],
  namesOf: (each: ToldPower) => readonly Privilege[],
): string[] {
  const groups = new Map<string, { people: Set<string>; one: ToldPower }>()
  for (const one of told) {
    if (namesOf(one).length === 0) continue
    const key = `${one.over ?? ''}|${namesOf(one).join()}`
    const group = groups.get(key) ?? { people: new Set(), one }
    group.people.add(one.person)
    groups.set(key, group)
  }
  return [...groups.values()].map(({ people, one }) => {
    const who = people.size === 1 ? '1 person' : `${people.size} people`
    const over = one.over === null ? '' : ` over ${one.over}`
    return `${who} ${verb} ${privilegesListed(namesOf(one))}${over}`
  })
}
