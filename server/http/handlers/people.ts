import type { Parts } from '../../parts.ts'
import { offerView } from '#server/services/people/offers.ts'
import { endTheirSignIns, sendSignInLink } from '../../services/people/account-recovery.ts'
import { addressesView } from '../../services/people/addresses.ts'
import { peopleCsv } from '../../services/people/export.ts'
import { importView } from '../../services/people/import.ts'
import { offboardingView } from '../../services/people/offboarding.ts'
import { invitationAddress } from '../../services/people/onboarding.ts'
import { namesView, personDetail } from '../../services/people/people.ts'
import { peopleIds, peopleView } from '../../services/people/people-list.ts'
import type { WorkspaceHandlers } from '../mount.ts'

/** People: the list and its parts, one of them, how they come in and leave. */
export const peopleHandlers = (parts: Parts) =>
  ({
    people: (asker, { query }) => peopleView(parts, asker, query),
    peopleIds: (asker, { query }) => peopleIds(parts, asker, query),
    peopleNames: asker => namesView(asker),
    peopleCsv: (asker, { query, response }) => {
      response.attachment('people.csv')
      return peopleCsv(parts, asker, query)
    },
    judgeAddresses: (asker, { body }) => addressesView(asker, body),
    previewOffer: (asker, { body }) => offerView(parts, asker, body),
    judgeImport: (asker, { body }) => importView(parts, asker, body),
    person: (asker, { params }) => personDetail(parts, asker, params.id),
    offboarding: (asker, { params }) => offboardingView(asker, params.id),
    // Asked for by an act, not on the way: whoever passes a link on does so knowingly.
    passOnInvitation: (asker, { params }) => invitationAddress(parts, asker, params.id),
    sendSignInLink: (asker, { params }) => sendSignInLink(parts, asker, params.id),
    endTheirSignIns: (asker, { params }) => endTheirSignIns(parts, asker, params.id),
  }) satisfies Partial<WorkspaceHandlers>
