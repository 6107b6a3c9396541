import { Type } from '@sinclair/typebox'
import { personKind, personStatus, principal } from '../terms.ts'
import { type View, oneOf, orNull, view } from '../pieces.ts'

export const RoleView = view('RoleView', { id: Type.String(), name: Type.String(), note: Type.String() })
export type RoleView = View<typeof RoleView>

export const PlaceName = view('PlaceName', { id: Type.String(), name: Type.String() })
export type PlaceName = View<typeof PlaceName>

/** A place by its name and where it stands, as far up as its reader sees. */
export const PathView = view('PathView', { ...PlaceName.properties, path: Type.String() })
export type PathView = View<typeof PathView>

export const PrincipalName = view('PrincipalName', {
  principal: principal,
  name: Type.String(),
  /** How many people it matches now; 1 for a person. */
  people: Type.Number(),
  kind: oneOf('member', 'guest', 'team', 'leads', 'everyone'),
  status: orNull(personStatus),
})
export type PrincipalName = View<typeof PrincipalName>

/** People as lists, profiles and offers tell of them. */
/** As much as picking somebody takes. */
export const PersonName = view('PersonName', {
  ...PlaceName.properties,
  mail: Type.String(),
  kind: personKind,
  status: personStatus,
})
export type PersonName = View<typeof PersonName>
