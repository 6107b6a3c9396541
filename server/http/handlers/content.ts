import type { Parts } from '../../parts.ts'
import { visiblePlace } from '../../services/viewer/asker.ts'
import { columnPeopleView } from '../../services/access/columns.ts'
import { columnsView } from '../../services/boards/column-views.ts'
import { moveTargets, nodeView, visibleChildren } from '../../services/content/content.ts'
import { changesWithin } from '#server/services/content/changes-within.ts'
import { saveText, textVersion, textVersions, textView } from '../../services/content/text.ts'
import type { WorkspaceHandlers } from '../mount.ts'

/** Places and what is written in them. */
export const contentHandlers = (parts: Parts) =>
  ({
    node: (asker, { params }) => nodeView(asker, params.id),
    children: (asker, { params }) => visibleChildren(asker, visiblePlace(asker, params.id).place.node.id),
    changesWithin: (asker, { params }) => changesWithin(parts, asker, params.id),
    moveTargets: (asker, { params, query }) => moveTargets(asker, params.id, query.find),
    columns: (asker, { params }) => columnsView(asker, params.id),
    peopleOfColumn: (asker, { params, query }) => columnPeopleView(asker, params, query),
    text: (asker, { params }) => textView(parts, asker, params.id),
    textVersions: (asker, { params }) => textVersions(parts, asker, params.id),
    textVersion: (asker, { params }) => textVersion(parts, asker, params),
    saveText: (asker, { params, body }) => saveText(parts, asker, { id: params.id, request: body }),
  }) satisfies Partial<WorkspaceHandlers>
