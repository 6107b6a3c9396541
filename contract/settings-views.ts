import type { Instant } from '#core/base/instant.ts'
import type { PlaceName } from './views.ts'

/** The settings of a workspace, with whom each concerns. */
export interface SettingsView {
  readonly name: string
  readonly timeZone: string
  readonly picture: string | null
  readonly defaultRole: string
  readonly invitationDays: number
  readonly houseRules: string
  readonly guestCeiling: number
  readonly allowsPublishing: boolean
  readonly memberDomains: readonly string[]
  readonly guestDomains: readonly string[]
  readonly twoStepFor: readonly string[]
  readonly signInDays: number
  readonly idleHours: number
  readonly roles: readonly SecuredRoleView[]
  /** How many guests are here or invited, and how many places are on the web. */
  readonly guests: number
  readonly published: number
  /** Closing all of it to everyone from outside: where, and by which limit it is closed; to whoever may. */
  readonly closing: {
    readonly whole: string
    readonly closed: { readonly limit: string; readonly by: string; readonly at: Instant } | null
  } | null
}

/** A role with those of its holders who have no second step yet. */
export interface SecuredRoleView extends PlaceName {
  readonly people: number
  readonly without: readonly PlaceName[]
}
