import type { WorkspaceId } from '#core/base/ids.ts'
import type { Invitation } from '#core/people/person.ts'
import type { JoinLink } from '#core/rules/offer.ts'
import { isTokenOf, type Signed, tokenOf } from '../signature.ts'

/**
 * Invitation and join links. A token is an id with a signature over it, so nothing secret lies in the database; that
 * of an invitation covers its issue, so a renewed one kills the links before it. It stands behind the `#` of
 * the address, where no log and no referrer sees it.
 *
 * The link in a mail shows that its user reads that mail; one that is passed on by hand does not. So the two are
 * signed apart.
 */
export type Passed = 'by mail' | 'by hand'

interface Signing {
  readonly secret: string
  readonly workspace: WorkspaceId
}

type Linking = Signing & { readonly baseUrl: string }

export const invitationLink = (linking: Linking, invitation: Invitation, passed: Passed): string =>
  `${linking.baseUrl}/join#${tokenOf(linking.secret, ofInvitation(linking, invitation, passed))}`

export const joinLink = (linking: Linking, link: JoinLink): string =>
  `${linking.baseUrl}/come#${tokenOf(linking.secret, ofJoinLink(linking, link))}`

/** How an invitation's token was passed on; `undefined` for one that is not this invitation's. */
export const passedBy = (token: string, signing: Signing, invitation: Invitation): Passed | undefined =>
  (['by mail', 'by hand'] as const).find(passed =>
    isTokenOf(token, signing.secret, ofInvitation(signing, invitation, passed)),
  )

export const isTokenOfLink = (token: string, signing: Signing, link: JoinLink): boolean =>
  isTokenOf(token, signing.secret, ofJoinLink(signing, link))

const ofInvitation = ({ workspace }: Signing, { id, issue }: Invitation, passed: Passed): Signed => ({
  purpose: `invitation ${passed}`,
  workspace,
  id,
  generation: issue,
})

/** When it was made tells one link from another that had its id. */
const ofJoinLink = ({ workspace }: Signing, { id, at }: JoinLink): Signed => ({
  purpose: 'join link',
  workspace,
  id,
  generation: at,
})
