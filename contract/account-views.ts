import type { Instant } from '#core/base/instant.ts'

/** What an account holder is answered about the account: its sign-ins, its second step, its workspaces. */

export interface AccountView {
  readonly mail: string
  readonly name: string
  /** Whether it was shown that the address is the holder's. */
  readonly isProven: boolean
  readonly language: string
  /** `null` for the browser's own. */
  readonly timeZone: string | null
  readonly twoStep: { readonly since: Instant; readonly recoveryCodesLeft: number } | null
  readonly signIns: readonly SignInView[]
}

export interface SignInView {
  readonly id: string
  readonly isThis: boolean
  /** The browser and the system, as far as it tells. */
  readonly at: string
  readonly since: Instant | null
  readonly lastUsed: Instant | null
}

/** To be kept by an app: shown once, before it counts. */
export interface TwoStepView {
  readonly secret: string
  /** A picture as a data address. */
  readonly qr: string
}

export interface RecoveryCodesView {
  readonly codes: readonly string[]
}

/** What a mailed link opens. */
export interface AccountLinkView {
  readonly purpose: 'password' | 'sign-in' | 'address'
  readonly mail: string
  readonly hasTwoStep: boolean
}

/** An invitation that waits for the account's own address. */
export interface WaitingInvitation {
  readonly id: string
  readonly workspace: string
  readonly by: string
  readonly as: 'member' | 'guest'
  readonly houseRules: string
}
