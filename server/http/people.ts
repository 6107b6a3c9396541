import { raw, type Request, Router } from 'express'
import {
  addressesRequest,
  idParams,
  importRequest,
  offerRequest,
  peopleQuery,
  placesQuery,
} from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import { addressesView } from '../services/addresses.ts'
import { type Asker, checking } from '../services/asker.ts'
import { peopleCsv } from '../services/export.ts'
import { endTheirSignIns, sendSignInLink } from '../services/account-recovery.ts'
import { importView } from '../services/import.ts'
import { offboardingView } from '../services/offboarding.ts'
import { namesView, personDetail } from '../services/people.ts'
import { peopleIds, peopleView } from '../services/people-list.ts'
import { keepPicture, pictureOf } from '../services/pictures.ts'
import { myAccessView, offerView, placesToOffer, accessiblePlaces } from '../services/accessible-places.ts'
import { settingsView } from '../services/settings.ts'
import { teamsView } from '../services/teams.ts'
import { invitationAddress, onboardingView } from '../services/onboarding.ts'
import { checked, checkedInParts } from './check.ts'

/** People: the list and its parts, one of them, how they come in and leave, their pictures. */
export function peopleRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  const id = (request: Request) => checked(idParams, request.params).id
  const query = (request: Request) => checked(peopleQuery, request.query)

  router.get('/people', (request, response) => {
    response.json(peopleView(parts, asker(request), query(request)))
  })
  router.get('/people/ids', (request, response) => {
    response.json(peopleIds(parts, asker(request), query(request)))
  })
  router.get('/people/names', (request, response) => {
    response.json(namesView(asker(request)))
  })
  router.get('/people.csv', (request, response) => {
    const csv = peopleCsv(parts, asker(request), query(request))
    response.attachment('people.csv').type('text/csv; charset=utf-8').send(csv)
  })
  router.post('/people/addresses', async (request, response) => {
    response.json(await addressesView(asker(request), checked(addressesRequest, request.body)))
  })
  router.post('/people/offer-preview', async (request, response) => {
    response.json(await offerView(parts, asker(request), checked(offerRequest, request.body)))
  })
  router.post('/imports', async (request, response) => {
    const who = asker(request)
    const table = await checkedInParts(importRequest, request.body, 'rows')
    response.json(await importView(parts, who, table))
  })
  router.get('/people/:id', async (request, response) => {
    response.json(await personDetail(parts, asker(request), id(request)))
  })
  router.get('/people/:id/access', async (request, response) => {
    response.json(await accessiblePlaces(parts, checking(parts, asker(request)), id(request)))
  })
  router.get('/people/:id/offboarding', (request, response) => {
    response.json(offboardingView(asker(request), id(request)))
  })
  // Asked for by an act, not on the way: whoever passes a link on does so knowingly.
  router.post('/people/:id/invitation-link', (request, response) => {
    response.json(invitationAddress(parts, asker(request), id(request)))
  })
  router.post('/people/:id/sign-in-link', async (request, response) => {
    await sendSignInLink(parts, asker(request), id(request))
    response.status(204).end()
  })
  router.delete('/people/:id/sign-ins', async (request, response) => {
    await endTheirSignIns(parts, asker(request), id(request))
    response.status(204).end()
  })
  return router
}

/** What stands around people: settings, ways in, places to offer, oneself, teams, pictures. */
export function aroundPeopleRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  const id = (request: Request) => checked(idParams, request.params).id
  router.get('/settings', (request, response) => {
    response.json(settingsView(parts, asker(request)))
  })
  router.get('/onboarding', (request, response) => {
    response.json(onboardingView(parts, asker(request)))
  })
  router.get('/places', async (request, response) => {
    const { find } = checked(placesQuery, request.query)
    response.json(await placesToOffer(asker(request), find))
  })
  router.get('/me/access', async (request, response) => {
    response.json(await myAccessView(parts, asker(request)))
  })
  router.get('/teams', (request, response) => {
    response.json(teamsView(asker(request)))
  })
  router.post(
    '/pictures',
    raw({ type: 'application/octet-stream', limit: '8mb' }),
    async (request, response) => {
      response.status(201).json(await keepPicture(parts, asker(request), request.body))
    },
  )
  router.get('/pictures/:id', async (request, response) => {
    const bytes = await pictureOf(parts, asker(request), id(request))
    // A picture is never another one under the same id.
    response.set('cache-control', 'private, max-age=604800, immutable').type('image/webp').send(bytes)
  })
  return router
}
