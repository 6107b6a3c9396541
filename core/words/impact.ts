import { type ActionSet, beyond } from '../levels/action.ts'
import { theWeb } from '../access/public.ts'
import { nameOfActions } from '../levels/level.ts'
import type { Privilege } from '../levels/privilege.ts'
import { counted, listed, peopleWords, placesWords } from './english.ts'
import { privilegesListed } from './privilege.ts'

/** One person at a place, before and after; whatever names the two. */
export interface WordedDifference {
  readonly person: string
  readonly place: string
  /** How many places it speaks of. */
  readonly places: number
  readonly before: ActionSet
  readonly after: ActionSet
}

/** What was gained, or lost, added up. */
export interface ImpactSum {
  readonly people: number
  readonly isWeb: boolean
  readonly places: number
  /** What people have then, each once at least. */
  readonly afters: readonly ActionSet[]
}

export interface ImpactSums {
  readonly gains: ImpactSum
  readonly losses: ImpactSum
}

/**
 * What a change does, in one line: "3 people gain Reader on 12 places. Nobody loses access." Where its
 * reader may not know of all that it does, nothing is said of nobody.
 */
export const impactInWords = (differences: readonly WordedDifference[], isWhole: boolean): string =>
  sumsInWords(sumsOf(differences), isWhole)

/** The same of what was added up already. */
export function sumsInWords({ gains, losses }: ImpactSums, isWhole: boolean): string {
  if (isNothing(gains) && isNothing(losses))
    return isWhole ? 'Nobody’s access changes.' : 'No access changes where you can see it.'
  const nobody = (does: string) => (isWhole ? [`Nobody ${does} access.`] : [])
  return [
    ...(isNothing(gains) ? nobody('gains') : [sentenceFor('gain', gains)]),
    ...(isNothing(losses) ? nobody('loses') : [sentenceFor('lose', losses)]),
  ].join(' ')
}

const isNothing = ({ people, isWeb }: ImpactSum) => people === 0 && !isWeb

const sumsOf = (differences: readonly WordedDifference[]): ImpactSums => ({
  gains: sumOf(differences.filter(each => beyond(each.after, each.before).length > 0)),
  losses: sumOf(differences.filter(each => beyond(each.before, each.after).length > 0)),
})

function sumOf(differences: readonly WordedDifference[]): ImpactSum {
  const people = new Set<string>(differences.map(each => each.person))
  const isWeb = people.delete(theWeb)
  const places = new Map(differences.map(each => [each.place, each.places]))
  return {
    people: people.size,
    isWeb,
    places: [...places.values()].reduce((sum, each) => sum + each, 0),
    afters: differences.map(each => each.after),
  }
}

function sentenceFor(verb: 'gain' | 'lose', { people, isWeb, places, afters }: ImpactSum): string {
  const who = whoDoes(isWeb, people)
  const level = verb === 'lose' ? levelLeft(afters) : undefined
  const on = `on ${placesWords(places)}`
  if (level !== undefined) return `${who.drop} to ${level} ${on}.`
  return `${who[verb]} ${whatOf(verb, afters)} ${on}.`
}

/** Visitors without an account count as nobody among the people: they are everybody. */
function whoDoes(isWeb: boolean, people: number): Record<'gain' | 'lose' | 'drop', string> {
  const who = [...(people === 0 ? [] : [peopleWords(people)]), ...(isWeb ? ['anybody on the web'] : [])]
  const subject = listed(who).replace(/^a/u, 'A')
  const end = people + (isWeb ? 1 : 0) === 1 ? 's' : ''
  return { gain: `${subject} gain${end}`, lose: `${subject} lose${end}`, drop: `${subject} drop${end}` }
}

/** The level that they come to have, where it is the same for all. */
function sameLevel(afters: readonly ActionSet[]): string | undefined {
  const [only, ...others] = new Set(afters.map(each => nameOfActions(each).name))
  return others.length === 0 ? only : undefined
}

/** What is left to all who lose, where it is the same for all and not nothing. */
const levelLeft = (afters: readonly ActionSet[]): string | undefined =>
  afters.some(each => each === 0) ? undefined : sameLevel(afters)

function whatOf(verb: 'gain' | 'lose', afters: readonly ActionSet[]): string {
  if (verb === 'gain') return sameLevel(afters) ?? 'access'
  const gone = afters.filter(each => each === 0).length
  if (gone === afters.length) return 'all access'
  return gone > 0 ? 'some or all access' : 'some access'
}

/** What somebody may do more and no longer over some people; whatever names them. */
export interface WordedPower {
  readonly person: string
  /** Over whom; `null` for the whole workspace. */
  readonly over: string | null
  readonly gains: readonly Privilege[]
  readonly loses: readonly Privilege[]
}

/** “3 people may now invite members over the people of Boats. 1 person may no longer suspend people.” */
export function powersInWords(powers: readonly WordedPower[]): string {
  const parts = [
    ...powerSentences('may now', powers, each => each.gains),
    ...powerSentences('may no longer', powers, each => each.loses),
  ]
  if (parts.length > 4) {
    const people = new Set(powers.map(each => each.person)).size
    return `${counted(parts.length, 'change', 'changes')} to what ${peopleWords(people)} may do in the workspace.`
  }
  return parts.map(each => `${each}.`).join(' ')
}

/** One sentence for all who gain, or lose, just the same. */
function powerSentences(
  verb: string,
  powers: readonly WordedPower[],
  namesOf: (each: WordedPower) => readonly Privilege[],
): string[] {
  const groups = new Map<string, { people: Set<string>; one: WordedPower }>()
  for (const one of powers) {
    if (namesOf(one).length === 0) continue
    const key = `${one.over ?? ''}|${namesOf(one).join()}`
    const group = groups.get(key) ?? { people: new Set(), one }
    group.people.add(one.person)
    groups.set(key, group)
  }
  return [...groups.values()].map(({ people, one }) => {
    const over = one.over === null ? '' : ` over ${one.over}`
    return `${peopleWords(people.size)} ${verb} ${privilegesListed(namesOf(one))}${over}`
  })
}
