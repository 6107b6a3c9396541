import { api, mutation, query } from './api.ts'

/** People: lists, one of them, how they come in and leave. */
export const peopleApi = api.injectEndpoints({
  endpoints: build => ({
    people: query(build, 'people'),
    peopleIds: query(build, 'peopleIds'),
    person: query(build, 'person'),
    accessOfPerson: query(build, 'accessOfPerson'),
    offboarding: query(build, 'offboarding'),
    judgeAddresses: mutation(build, 'judgeAddresses'),
    previewOffer: mutation(build, 'previewOffer'),
    judgeImport: mutation(build, 'judgeImport'),
    passOnInvitation: mutation(build, 'passOnInvitation'),
    sendSignInLink: mutation(build, 'sendSignInLink'),
    endTheirSignIns: mutation(build, 'endTheirSignIns', ['people']),
    places: query(build, 'places'),
    onboarding: query(build, 'onboarding'),
    settings: query(build, 'settings'),
    myAccess: query(build, 'myAccess'),
    keepPicture: mutation(build, 'keepPicture'),
  }),
})

export const {
  usePeopleQuery,
  useLazyPeopleIdsQuery,
  usePersonQuery,
  useAccessOfPersonQuery,
  useOffboardingQuery,
  useJudgeAddressesMutation,
  usePreviewOfferMutation,
  useJudgeImportMutation,
  usePassOnInvitationMutation,
  useSendSignInLinkMutation,
  useEndTheirSignInsMutation,
  usePlacesQuery,
  useOnboardingQuery,
  useSettingsQuery,
  useMyAccessQuery,
  useKeepPictureMutation,
} = peopleApi
