import type { DraftItemsView, DraftsView, DraftView, RecipientsView } from '#contract/access-views.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { DraftRequest, AddToDraftRequest, HandOverRequest } from '#contract/requests.ts'
import { say } from '../store/said.ts'
import { useAppDispatch } from '../store/store.ts'
import { api, at, type AtNode, ofWorkspace, post } from './api.ts'

/** Change sets that are drafted, kept for later, or handed over. */
const draftsApi = api.injectEndpoints({
  endpoints: build => ({
    drafts: build.query<DraftsView, string>(ofWorkspace('/drafts')),
    draft: build.query<DraftView, AtNode>({
      query: ({ slug, id }) => ({ path: at(slug, `/drafts/${id}`) }),
      providesTags: ['workspace'],
    }),
    draftItems: build.query<DraftItemsView, AtNode>({
      query: ({ slug, id }) => ({ path: at(slug, `/drafts/${id}/items`) }),
      providesTags: ['workspace'],
    }),
    recipients: build.query<RecipientsView, AtNode>({
      query: ({ slug, id }) => ({ path: at(slug, `/drafts/${id}/recipients`) }),
      providesTags: ['workspace'],
    }),
    addToDraft: build.mutation<DraftsView, { readonly slug: string } & AddToDraftRequest>({
      query: ({ slug, ...body }) => post(at(slug, '/drafts'), body),
      invalidatesTags: ['workspace'],
    }),
    changeDraft: build.mutation<DraftsView, AtNode & DraftRequest>({
      query: ({ slug, id, ...body }) => ({ path: at(slug, `/drafts/${id}`), method: 'PUT', body }),
      invalidatesTags: ['workspace'],
    }),
    dropDraft: build.mutation<DraftsView, AtNode>({
      query: ({ slug, id }) => ({ path: at(slug, `/drafts/${id}`), method: 'DELETE' }),
      invalidatesTags: ['workspace'],
    }),
    handOverDraft: build.mutation<DraftsView, AtNode & HandOverRequest>({
      query: ({ slug, id, ...body }) => post(at(slug, `/drafts/${id}/handover`), body),
      invalidatesTags: ['workspace'],
    }),
  }),
})

export const {
  useDraftsQuery,
  useDraftQuery,
  useDraftItemsQuery,
  useRecipientsQuery,
  useChangeDraftMutation,
  useDropDraftMutation,
  useHandOverDraftMutation,
} = draftsApi

/** Puts an act with those of the draft; tells whether it is there. */
export function useAddToDraft(slug: string) {
  const dispatch = useAppDispatch()
  return async (edits: readonly EditRequest[]): Promise<boolean> => {
    const { data } = await dispatch(draftsApi.endpoints.addToDraft.initiate({ slug, edits: [...edits] }))
    if (data !== undefined) dispatch(say({ text: 'Added to your draft. Nothing has changed yet.' }))
    return data !== undefined
  }
}
