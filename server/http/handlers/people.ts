import type { Parts } from '../../parts.ts'
import { offerView } from '../../services/accessible-places.ts'
import { endTheirSignIns, sendSignInLink } from '../../services/account-recovery.ts'
import { addressesView } from '../../services/addresses.ts'
import { peopleCsv } from '../../services/export.ts'
import { importView } from '../../services/import.ts'
import { offboardingView } from '../../services/offboarding.ts'
import { invitationAddress } from '../../services/onboarding.ts'
import { namesView, personDetail } from '../../services/people.ts'
import { peopleIds, peopleView } from '../../services/people-list.ts'
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
