import type { PageView } from '#contract/oversight-views.ts'
import type {
  AddressView,
  PlaceHit,
  ImportedRowView,
  OffboardingView,
  MyAccessView,
  OfferView,
  PersonDetailView,
  PersonView,
  AccessiblePlaceView,
  OnboardingView,
} from '#contract/people-views.ts'
import type { AddressesRequest, ImportRequest, OfferPreviewRequest, PeopleQuery } from '#contract/requests.ts'
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
    reach: build.query<AccessiblePlaceView[], AtPerson>(ofPerson('/access')),
    offboarding: build.query<OffboardingView, AtPerson>(ofPerson('/offboarding')),
    addresses: build.mutation<AddressView[], { readonly slug: string } & AddressesRequest>({
      query: ({ slug, ...body }) => post(at(slug, '/people/addresses'), body),
    }),
    offer: build.mutation<OfferView, { readonly slug: string } & OfferPreviewRequest>({
      query: ({ slug, ...body }) => post(at(slug, '/people/offer-preview'), body),
    }),
    judgeImport: build.mutation<ImportedRowView[], { readonly slug: string } & ImportRequest>({
      query: ({ slug, ...body }) => post(at(slug, '/imports'), body),
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
    places: build.query<PlaceHit[], { readonly slug: string; readonly find: string }>({
      query: ({ slug, find }) => ({ path: at(slug, `/places?${new URLSearchParams({ find }).toString()}`) }),
      providesTags: ['workspace'],
    }),
    onboarding: build.query<OnboardingView, string>(ofWorkspace('/onboarding')),
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
  useOffboardingQuery,
  useAddressesMutation,
  useOfferMutation,
  useJudgeImportMutation,
  useInvitationLinkMutation,
  useSignInLinkMutation,
  useEndTheirSignInsMutation,
  usePlacesQuery,
  useOnboardingQuery,
  useSettingsQuery,
  useMyAccessQuery,
  useKeepPictureMutation,
} = people
