import { Type } from '@sinclair/typebox'
import { strict } from '../pieces.ts'
import { addressesRequest, importRequest, offerRequest, peopleQuery } from '../requests.ts'
import { bytes, nothing, type Route } from '../route.ts'
import { PersonName } from '../views/names.ts'
import { AddressView, ImportedRowView, OfferView } from '../views/onboarding.ts'
import { pageOf } from '../views/page.ts'
import { OffboardingView, PersonDetailView, PersonView } from '../views/people.ts'

const finding = 'To be in the workspace; told are those whom one may find.'
const inviting = 'A privilege to invite people.'

/** People: the list and its parts, one of them, how they come in and leave. */
export const peopleRoutes = {
  people: {
    does: 'A part of the list of people, searched, filtered and sorted.',
    needs: finding,
    query: peopleQuery,
    answer: pageOf('PersonPage', PersonView),
  },
  peopleIds: {
    does: 'The ids of all people of a list.',
    needs: finding,
    query: peopleQuery,
    answer: Type.Array(Type.String()),
  },
  peopleNames: { does: 'Everybody by name, to pick from.', needs: finding, answer: Type.Array(PersonName) },
  peopleCsv: {
    does: 'The list of people as a file.',
    needs: finding,
    query: peopleQuery,
    answer: bytes('text/csv; charset=utf-8'),
  },
  judgeAddresses: {
    does: 'Judges each address of a list of people to invite.',
    needs: inviting,
    body: addressesRequest,
    answer: Type.Array(AddressView),
  },
  previewOffer: {
    does: 'What somebody who takes an offer could see and do.',
    needs: inviting,
    body: offerRequest,
    answer: OfferView,
  },
  judgeImport: {
    does: 'Judges each row of a table of people, and answers with the edits that it comes to.',
    needs: inviting,
    body: importRequest,
    answer: Type.Array(ImportedRowView),
    long: 'rows',
  },
  person: { does: 'One person.', needs: finding, answer: PersonDetailView },
  offboarding: {
    does: 'What somebody alone keeps, and becomes nobody’s when they leave.',
    needs: 'The privilege to remove them.',
    answer: OffboardingView,
  },
  passOnInvitation: {
    does: 'The link of an open invitation, to be passed on by hand.',
    needs: 'To have sent it, or to be owner.',
    answer: Type.Object({ address: Type.String() }, strict),
  },
  sendSignInLink: {
    does: 'Mails somebody a link to sign in again.',
    needs: 'The privilege to reset sign-in.',
    answer: nothing,
  },
  endTheirSignIns: {
    does: 'Ends somebody’s sign-ins.',
    needs: 'The privilege to reset sign-in.',
    answer: nothing,
  },
} as const satisfies Readonly<Record<string, Route>>
