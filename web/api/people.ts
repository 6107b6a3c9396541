import type { PageView } from '#contract/oversight-views.ts'
import type {
  AddressView,
  FoundPlaceView,
  ImportedRowView,
  LeavingView,
  MyAccessView,
  OfferView,
  PersonDetailView,
  PersonView,
  ReachedView,
  WaysInView,
} from '#contract/people-views.ts'
import type { AddressesRequest, ImportRequest, LookThroughRequest, PeopleQuery } from '#contract/requests.ts'
import type { SettingsView } from '#contract/settings-views.ts'
import { api, at, ofWorkspace, post } from './api.ts'

interface AtPerson {
  readonly slug: string
  readonly id: string
}

const ofPerson = (rest: string) => ({
  query: ({ slug, id }: AtPerson) => ({ path: at(slug, `/people/${id}${rest}`) }),
  providesTags: ['workspace' as const],
})

export const queryOf = (query: PeopleQuery): string => new URLSearchParams(query).toString()

/** People: lists, one of them, how they come in and leave. */
export const people = api.injectEndpoints({
  endpoints: build => ({
    people: build.query<PageView<PersonView>, { readonly slug: string } & PeopleQuery>({
      query: ({ slug, ...query }) => ({ path: at(slug, `/people?${queryOf(query)}`) }),
      providesTags: ['workspace'],
    }),
    peopleIds: build.query<string[], { readonly slug: string } & PeopleQuery>({
      query: ({ slug, ...query }) => ({ path: at(slug, `/people/ids?${queryOf(query)}`) }),
      providesTags: ['workspace'],
    }),
    person: build.query<PersonDetailView, AtPerson>(ofPerson('')),
    reach: build.query<ReachedView[], AtPerson>(ofPerson('/reach')),
    leaving: build.query<LeavingView, AtPerson>(ofPerson('/leaving')),
    addresses: build.mutation<AddressView[], { readonly slug: string } & AddressesRequest>({
      query: ({ slug, ...body }) => post(at(slug, '/people/addresses'), body),
    }),
    offer: build.mutation<OfferView, { readonly slug: string } & LookThroughRequest>({
      query: ({ slug, ...body }) => post(at(slug, '/people/offer'), body),
    }),
    judgeImport: build.mutation<ImportedRowView[], { readonly slug: string } & ImportRequest>({
      query: ({ slug, ...body }) => post(at(slug, '/people/import'), body),
    }),
    invitationLink: build.mutation<{ address: string }, AtPerson>({
      query: ({ slug, id }) => post(at(slug, `/people/${id}/invitation-link`), {}),
    }),
    signInLink: build.mutation<null, AtPerson>({
      query: ({ slug, id }) => post(at(slug, `/people/${id}/sign-in-link`), {}),
    }),
    endTheirSignIns: build.mutation<null, AtPerson>({
      query: ({ slug, id }) => ({ path: at(slug, `/people/${id}/sign-ins`), method: 'DELETE' }),
      invalidatesTags: ['workspace'],
    }),
    places: build.query<FoundPlaceView[], { readonly slug: string; readonly find: string }>({
      query: ({ slug, find }) => ({ path: at(slug, `/places?${new URLSearchParams({ find }).toString()}`) }),
      providesTags: ['workspace'],
    }),
    waysIn: build.query<WaysInView, string>(ofWorkspace('/ways-in')),
    settings: build.query<SettingsView, string>(ofWorkspace('/settings')),
    myAccess: build.query<MyAccessView, string>(ofWorkspace('/me/access')),
    keepPicture: build.mutation<{ id: string }, { readonly slug: string; readonly file: Blob }>({
      query: ({ slug, file }) => post(at(slug, '/pictures'), file),
    }),
  }),
})

export const {
  usePeopleQuery,
  useLazyPeopleIdsQuery,
  usePersonQuery,
  useReachQuery,
  useLeavingQuery,
  useAddressesMutation,
  useOfferMutation,
  useJudgeImportMutation,
  useInvitationLinkMutation,
  useSignInLinkMutation,
  useEndTheirSignInsMutation,
  usePlacesQuery,
  useWaysInQuery,
  useSettingsQuery,
  useMyAccessQuery,
  useKeepPictureMutation,
} = people
