import type {
  MyRequestView,
  MyWantedView,
  RequestView,
  RequestsView,
  WantedView,
} from '#contract/views/requests.ts'
import { api, query } from './api.ts'

/** What people ask others for. */
const requestsApi = api.injectEndpoints({
  endpoints: build => ({
    requests: query(build, 'requests'),
  }),
})

export const { useRequestsQuery } = requestsApi

/** Those of some kinds, of what is to be decided. */
export const toDecideOf = <K extends WantedView['of']>(
  view: Pick<RequestsView, 'toDecide'> | undefined,
  ...of: readonly K[]
) =>
  (view?.toDecide ?? []).filter((each): each is RequestView<Extract<WantedView, { readonly of: K }>> =>
    isOf(each, of),
  )

/** Of one's own. */
export const mineOf = <K extends MyWantedView['of']>(
  view: Pick<RequestsView, 'mine'> | undefined,
  ...of: readonly K[]
) =>
  (view?.mine ?? []).filter((each): each is MyRequestView<Extract<MyWantedView, { readonly of: K }>> =>
    isOf(each, of),
  )

const isOf = ({ wants }: { readonly wants: { readonly of: string } }, of: readonly string[]) =>
  of.includes(wants.of)
