import type { EditRequest } from '#contract/edit-requests.ts'
import { say } from '../store/message.ts'
import { useAppDispatch } from '../store/store.ts'
import { api, mutation, query } from './api.ts'

/** Change sets that are drafted, kept for later, or handed over. */
const draftsApi = api.injectEndpoints({
  endpoints: build => ({
    drafts: query(build, 'drafts'),
    draft: query(build, 'draft'),
    draftItems: query(build, 'draftItems'),
    draftRecipients: query(build, 'draftRecipients'),
    addToDraft: mutation(build, 'addToDraft', ['drafts']),
    changeDraft: mutation(build, 'changeDraft', ['drafts']),
    discardDraft: mutation(build, 'discardDraft', ['drafts']),
    handOverDraft: mutation(build, 'handOverDraft', ['drafts']),
  }),
})

export const {
  useDraftsQuery,
  useDraftQuery,
  useDraftItemsQuery,
  useDraftRecipientsQuery,
  useChangeDraftMutation,
  useDiscardDraftMutation,
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
