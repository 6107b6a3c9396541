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

/** What was gained, or lost, added up. */
export interface ToldSum {
  readonly people: number
  readonly isWeb: boolean
  readonly places: number
  /** What people have then, each once at least. */
  readonly afters: readonly ActionSet[]
}

export interface ToldSums {
  readonly gains: ToldSum
  readonly losses: ToldSum
}

/**
 * What a change does, in one line: "3 people gain Reader on 12 places; nobody loses anything." Where its
 * reader may not know of all that it does, nothing is said of nobody.
 */
export const impactInWords = (differences: readonly Told[], isWhole: boolean): string =>
  sumsInWords(sumsOf(differences), isWhole)

/** The same of what was added up already. */
export function sumsInWords({ gains, losses }: ToldSums, isWhole: boolean): string {
  if (isNothing(gains) && isNothing(losses))
    return isWhole ? 'Nobody’s access changes.' : 'No access changes where you can see it.'
  const nobody = (does: string) => (isWhole ? [`nobody ${does} anything`] : [])
  const parts = [
    ...(isNothing(gains) ? nobody('gains') : [sentenceFor('gain', gains)]),
    ...(isNothing(losses) ? nobody('loses') : [sentenceFor('lose', losses)]),
  ]
  const line = `${parts.join('; ')}.`
  return line.charAt(0).toUpperCase() + line.slice(1)
}

const isNothing = ({ people, isWeb }: ToldSum) => people === 0 && !isWeb

const sumsOf = (told: readonly Told[]): ToldSums => ({
  gains: sumOf(told.filter(each => beyond(each.after, each.before).length > 0)),
  losses: sumOf(told.filter(each => beyond(each.before, each.after).length > 0)),
})

function sumOf(told: readonly Told[]): ToldSum {
  const people = new Set<string>(told.map(each => each.person))
  const isWeb = people.delete(theWeb)
  const places = new Map(told.map(each => [each.place, each.places]))
  return {
    people: people.size,
    isWeb,
    places: [...places.values()].reduce((sum, each) => sum + each, 0),
    afters: told.map(each => each.after),
  }
}

function sentenceFor(verb: 'gain' | 'lose', { people, isWeb, places, afters }: ToldSum): string {
  const who = whoOf(verb, isWeb, people)
  return `${who} ${whatOf(verb, afters)} on ${places === 1 ? '1 place' : `${withCommas(places)} places`}`
}

/** A large number is easier to read in groups of three. */
export const withCommas = (count: number): string => count.toLocaleString('en')

/** Visitors without an account count as nobody among the people: they are everybody. */
function whoOf(verb: 'gain' | 'lose', isWeb: boolean, people: number): string {
  if (isWeb && people === 0) return `anybody on the web ${verb}s`
  const counted = people === 1 ? '1 person' : `${withCommas(people)} people`
  if (isWeb) return `${counted} and anybody on the web ${verb}`
  return people === 1 ? `${counted} ${verb}s` : `${counted} ${verb}`
}

/** The level that they come to have, where it is the same for all; of a loss, how much of it. */
function whatOf(verb: 'gain' | 'lose', afters: readonly ActionSet[]): string {
  const [only, ...others] = new Set(afters.map(each => nameOfActions(each).name))
  const level = only !== undefined && others.length === 0 ? only : undefined
  if (verb === 'gain') return level ?? 'access'
  const gone = afters.filter(each => each === 0).length
  if (gone === afters.length) return 'all access'
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
