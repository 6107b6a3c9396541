import { api, query } from './api.ts'

/** Access over many places, copied, and checked. */
const accessApi = api.injectEndpoints({
  endpoints: build => ({
    grants: query(build, 'grants'),
    accessToCopy: query(build, 'accessToCopy'),
    placesToCheck: query(build, 'placesToCheck'),
    moveTargets: query(build, 'moveTargets'),
    peopleWithAccess: query(build, 'peopleWithAccess'),
    ownAccess: query(build, 'ownAccess'),
  }),
})

export const {
  useGrantsQuery,
  useAccessToCopyQuery,
  usePlacesToCheckQuery,
  useMoveTargetsQuery,
  usePeopleWithAccessQuery,
  useOwnAccessQuery,
} = accessApi
