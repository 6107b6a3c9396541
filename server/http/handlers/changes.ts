import type { Parts } from '../../parts.ts'
import { applyChangeSet } from '../../services/changes/change.ts'
import {
  addToDraft,
  changeDraft,
  draftItems,
  draftsView,
  draftView,
  dropDraft,
  handOverDraft,
  recipientsView,
} from '../../services/changes/drafts.ts'
import { preview } from '../../services/changes/preview.ts'
import type { WorkspaceHandlers } from '../mount.ts'

/** Change sets: previewed, applied, or drafted first. */
export const changeHandlers = (parts: Parts) =>
  ({
    preview: (asker, { body, patience }) => preview(parts, asker, { request: body, patience }),
    change: (asker, { body, patience }) => applyChangeSet(parts, asker, { request: body, patience }),
    drafts: asker => draftsView(parts, asker),
    addToDraft: (asker, { body }) => addToDraft(parts, asker, body),
    draft: (asker, { params }) => draftView(parts, asker, params.id),
    changeDraft: (asker, { params, body }) => changeDraft(parts, asker, { id: params.id, ...body }),
    discardDraft: (asker, { params }) => dropDraft(parts, asker, params.id),
    draftItems: (asker, { params, patience }) => draftItems(parts, asker, { id: params.id, patience }),
    draftRecipients: (asker, { params, patience }) =>
      recipientsView(parts, asker, { id: params.id, patience }),
    handOverDraft: (asker, { params, body }) => handOverDraft(parts, asker, { id: params.id, ...body }),
  }) satisfies Partial<WorkspaceHandlers>
