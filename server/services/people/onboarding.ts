import type {
  JoinLinkView,
  OnboardingView,
  PlaceNamesView,
  WelcomeSetView,
} from '#contract/views/onboarding.ts'
import type { OfferRequest } from '#contract/edit-requests.ts'
import { check } from '#core/access/evaluate.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { type Context, knowsTeam } from '#core/changes/context.ts'
import { lacksHandingOn } from '#core/changes/edits/invitation.ts'
import { isLinkOpen, lacksWithdrawingLink, offerOf } from '#core/changes/edits/join-link.ts'
import { isOfferedByAnother, lacksKeeping, lacksOffering } from '#core/changes/edits/welcome-set.ts'
import type { JoinLink, Offer, WelcomeSet } from '#core/rules/offer.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { pathOf } from '#core/state/state.ts'
import { invitationLink, joinLink } from '../../mail/link.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import { type Asker, asks, maySee, nameOf, pathWords } from '../viewer/asker.ts'
import { problemFrom } from '../changes/change-set.ts'
import { letsIn } from './join-link.ts'

export function onboardingView(parts: Parts, viewer: Asker): OnboardingView {
  if (!asks(viewer, 'invite members') && !asks(viewer, 'invite guests')) throw problemOf('not-found')
  const { state } = viewer.snapshot
  // An asker's snapshot may be of a while ago: the end of a link is none at which it is taken anew.
  const asker = { ...viewer, snapshot: snapshotOf(state, parts.clock()) }
  return {
    welcomeSets: allRows(state.welcomeSets)
      .map(each => welcomeSetView(asker, each))
      .sort((a, b) => compareWords(a.name, b.name)),
    joinLinks: allRows(state.joinLinks)
      .map(each => joinLinkView(parts, asker, each))
      .sort((a, b) => b.at - a.at),
  }
}

const contextOf = ({ person, snapshot }: Asker): Context => ({
  author: person,
  before: snapshot,
  now: snapshot,
})

function welcomeSetView(asker: Asker, set: WelcomeSet): WelcomeSetView {
  const { snapshot } = asker
  const invited = allRows(snapshot.state.invitations).filter(each => each.welcome === set.id)
  return {
    id: set.id,
    name: set.name,
    note: set.note,
    offer: offerSeen(asker, set.offer),
    placeNames: placeNames(asker, set.offer),
    invited: invited.map(({ person }) => ({ id: person, name: nameOf(snapshot, person) })),
    links: allRows(snapshot.state.joinLinks).filter(link => link.welcome === set.id).length,
    mayChange: lacksKeeping(contextOf(asker), set) === undefined && isWhollySeen(asker, set.offer),
    isGivenByAnother: isOfferedByAnother(contextOf(asker), set),
  }
}

/** Places that the reader does not see are left out: their names, and that there are any. */
const offerSeen = (asker: Asker, offer: Offer): OfferRequest => ({
  ...offer,
  teams: offer.teams.filter(team => knowsTeam(asker.snapshot, asker.person, team)),
  places: offer.places.filter(({ node }) => maySee(asker, node)).map(each => ({ ...each })),
})

function placeNames(asker: Asker, { places }: Offer): PlaceNamesView {
  const seen = places.filter(({ node }) => maySee(asker, node))
  return Object.fromEntries(
    seen.map(({ node }) => {
      const [place, ...above] = pathOf(asker.snapshot.state, node)
      const atMost = check(asker.snapshot, asker.person, node)
      return [node, { name: place?.name ?? '', path: pathWords(asker, above), atMost }]
    }),
  )
}

const isWhollySeen = (asker: Asker, { places, teams }: Offer) =>
  places.every(({ node }) => maySee(asker, node)) &&
  teams.every(team => knowsTeam(asker.snapshot, asker.person, team))

function joinLinkView(parts: Parts, asker: Asker, link: JoinLink): JoinLinkView {
  const { snapshot } = asker
  const context = contextOf(asker)
  const { id, name, by, at, until, domains, most, used, welcome } = link
  const offer = offerOf(snapshot.state, link)
  const isOpen = isLinkOpen(snapshot, link)
  const mayPassOn = isOpen && lacksOffering(context, offer) === undefined
  return {
    id,
    name,
    by: nameOf(snapshot, by),
    at,
    until,
    domains,
    most,
    used,
    welcome,
    offer: offerSeen(asker, offer),
    placeNames: placeNames(asker, offer),
    isOpen,
    letsIn: letsIn(parts, snapshot, link),
    address: mayPassOn
      ? joinLink({ ...parts.config, secret: parts.secret, workspace: asker.workspace }, link)
      : null,
    mayChange: by === asker.person,
    mayWithdraw: lacksWithdrawingLink(context, link) === undefined,
  }
}

/** The link of an open invitation, to be passed on by hand by who sent it, or an Owner. */
export function invitationAddress(parts: Parts, asker: Asker, id: string): { readonly address: string } {
  const { state } = asker.snapshot
  const person = rowOf(state.persons, id as PersonId)
  const [invitation] = rowsBy(state.invitations, 'person', id)
  const lacks = lacksHandingOn(contextOf(asker), person)
  if (lacks?.code === 'not-its-maker')
    throw new ProblemError(problemFrom({ refusal: lacks, edit: null }, asker))
  if (invitation === undefined || lacks !== undefined) throw problemOf('not-found')
  return {
    address: invitationLink(
      { ...parts.config, secret: parts.secret, workspace: asker.workspace },
      invitation,
      'by hand',
    ),
  }
}
