import { zxcvbn, zxcvbnOptions } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary as common } from '@zxcvbn-ts/language-common'
import { dictionary as english } from '@zxcvbn-ts/language-en'

/** What makes a password too weak, told in the same words by the page while it is typed and by the server. */

zxcvbnOptions.setOptions({ dictionary: { ...common, ...english }, graphs: adjacencyGraphs })

export type PasswordFault = 'short' | 'address' | 'own words' | 'guessable'

export const passwordFaults: Readonly<Record<PasswordFault, string>> = {
  short: 'Use at least 12 characters. A few words in a row are easy to remember.',
  address: 'Do not use your mail address as your password.',
  'own words': 'Use more than your own name, your address, or the name of the workspace.',
  guessable: 'This is easy to guess: it has well-known words or a simple pattern. Add another word or two.',
}

/** Whose password it is: others would try these first. */
export interface PasswordOf {
  readonly mail: string
  /** Names of the person, and of workspaces. */
  readonly words: readonly string[]
}

const shortest = 12
/** Estimating costs more than the length; what follows makes nothing weaker. */
const estimated = 64
/** Of five steps: safe from guesses that are slow, as ours are. */
const strongEnough = 3
/** Of a password without the words that others know of its holder, so much has to be left. */
const leftAtLeast = 8

/** The first reason why a password is not taken; none if it is. Costs some milliseconds. */
export function passwordFault(password: string, { mail, words }: PasswordOf): PasswordFault | undefined {
  const plain = password.toLowerCase()
  const [local = '', domain = ''] = mail.toLowerCase().split('@')
  if (plain === mail.toLowerCase() || plain === local) return 'address'
  if (Array.from(password).length < shortest) return 'short'
  const own = ['noskel', local, domain, ...words.map(each => each.toLowerCase())]
    .flatMap(each => [each, ...each.split(/[^\p{L}\p{N}]+/u)])
    .filter(each => each.length >= 4)
    .sort((a, b) => b.length - a.length)
  if (own.reduce((rest, word) => rest.replaceAll(word, ''), plain).length < leftAtLeast) return 'own words'
  return zxcvbn(password.slice(0, estimated), own).score < strongEnough ? 'guessable' : undefined
}
