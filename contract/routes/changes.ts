import { addToDraftRequest, changeSetRequest, draftRequest, handOverRequest } from '../requests.ts'
import type { Route } from '../route.ts'
import { DraftItemsView, DraftsView, DraftView, RecipientsView } from '../views/drafts.ts'
import { PreviewView } from '../views/impact.ts'
import { AppliedView } from '../views/workspace.ts'

const ofEach = 'What each edit needs.'
const own = 'That it is one’s own draft.'

/** Change sets: previewed, applied, or drafted first. */
export const changeRoutes = {
  preview: {
    does: 'What a change set would do, to whom, where and when, as far as its author may know.',
    needs: ofEach,
    body: changeSetRequest,
    answer: PreviewView,
    long: 'edits',
    isSlow: true,
  },
  change: {
    does: 'Applies a change set, all of it or nothing.',
    needs: ofEach,
    body: changeSetRequest,
    answer: AppliedView,
    long: 'edits',
    isSlow: true,
  },
  drafts: { does: 'One’s drafts.', needs: 'To be in the workspace.', answer: DraftsView },
  addToDraft: {
    does: 'Adds an act to one’s draft. Nothing changes yet.',
    needs: 'To be in the workspace.',
    body: addToDraftRequest,
    answer: DraftsView,
    long: 'edits',
  },
  draft: { does: 'A draft with its edits.', needs: own, answer: DraftView },
  changeDraft: {
    does: 'Keeps a draft under a name, or leaves one of its acts out.',
    needs: own,
    body: draftRequest,
    answer: DraftsView,
  },
  discardDraft: { does: 'Discards a draft.', needs: own, answer: DraftsView },
  draftItems: {
    does: 'A draft act by act, as the history would tell it.',
    needs: own,
    answer: DraftItemsView,
    isSlow: true,
  },
  draftRecipients: {
    does: 'Who could apply a draft.',
    needs: own,
    answer: RecipientsView,
    isSlow: true,
  },
  handOverDraft: {
    does: 'Hands a draft over to somebody who can apply it.',
    needs: own,
    body: handOverRequest,
    answer: DraftsView,
  },
} as const satisfies Readonly<Record<string, Route>>
