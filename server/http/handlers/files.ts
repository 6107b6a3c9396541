import { workspaceOf } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { fileToTake, fileVersionsView, fileView, restoreFileVersion } from '../../services/content/files.ts'
import { previewPage, previewView, previewWords } from '../../services/content/previews.ts'
import { appendTo, beginUpload, endUpload, uploadsView, uploadOf } from '../../services/content/uploads.ts'
import { storageView } from '../../services/content/storage-view.ts'
import { zipOf, zipOfPlaces } from '../../services/content/zip.ts'
import type { WorkspaceHandlers } from '../mount.ts'
import { sendFile, sendZip } from '../send-file.ts'
import { announced, offsetIn, sayFile, sayOffset, sayProtocol, tusVersion } from '../tus.ts'

/** Files, and how they come in. */
export const fileHandlers = (parts: Parts) =>
  ({
    file: (asker, { params }) => fileView(parts, asker, params.id),
    fileVersions: (asker, { params }) => fileVersionsView(parts, asker, params.id),
    restoreFileVersion: (asker, { params }) => restoreFileVersion(parts, asker, params),
    fileBytes: async (asker, { params, response }) =>
      sendFile(response, await fileToTake(parts, asker, params)),
    fileVersionBytes: async (asker, { params, response }) =>
      sendFile(response, await fileToTake(parts, asker, params)),
    zipOfPlaces: async (asker, { query, response }) =>
      sendZip(response, await zipOfPlaces(parts, asker, query.places.split(','))),
    zip: async (asker, { params, response }) => sendZip(response, await zipOf(parts, asker, params.id)),
    filePreview: (asker, { params, query }) => previewView(parts, asker, { ...query, ...params }),
    filePreviewPage: async (asker, { params, query, response }) => {
      const { bytes, tag } = await previewPage(parts, asker, { ...query, ...params })
      // Asked for anew each time, and not sent again where it is the same.
      response.set({ etag: `"${tag}"`, 'cache-control': 'private, no-cache' })
      return bytes
    },
    filePreviewWords: (asker, { params, query }) => previewWords(parts, asker, { ...query, ...params }),
    storage: asker => storageView(parts, asker),
    uploads: asker => uploadsView(parts, asker),
    uploadProtocol: ({ snapshot }, { response }) =>
      sayProtocol(response, workspaceOf(snapshot.state).largestFile),
    beginUpload: async (asker, { params, request, response }) => {
      const { upload, file } = await beginUpload(parts, asker, announced(request))
      sayOffset(response, upload)
      sayFile(response, file)
      response.set('location', `/api/at/${params.slug}/uploads/${upload.id}`)
    },
    uploadOffset: async (asker, { params, response }) =>
      sayOffset(response, await uploadOf(parts, asker, params.id)),
    appendToUpload: async (asker, { params, request, response }) => {
      const offset = offsetIn(request)
      const { upload, file } = await appendTo(parts, asker, { id: params.id, offset, bytes: request })
      sayOffset(response, upload)
      sayFile(response, file)
    },
    endUpload: async (asker, { params, response }) => {
      response.set('tus-resumable', tusVersion)
      await endUpload(parts, asker, params.id)
    },
  }) satisfies Partial<WorkspaceHandlers>
