import type { Offer } from '../rules/offer.ts'
import type { Reference } from '../state/shape.ts'
import { within } from './references.ts'

/**
 * What an offer names. A role and a team that are offered stay for as long; a place or level may go: what is given is
 * judged when it is given.
 */
export const offered = <Row extends { readonly offer: Offer }>(): Reference<Row>[] => [
  within<Row>('offer', 'roles', {
    ids: ({ offer }) => (offer.role === null ? [] : [offer.role]),
    whenGone: 'forbids',
  }),
  within<Row>('offer', 'teams', { ids: ({ offer }) => offer.teams, whenGone: 'forbids' }),
  within<Row>('offer', 'nodes', {
    ids: ({ offer }) => offer.places.map(place => place.node),
    whenGone: 'stays',
  }),
]
