import { Type } from '@sinclair/typebox'
import { pickedQuery } from '../requests.ts'
import { bytes, fileBytes, inHeaders, nothing, type Route, stream } from '../route.ts'
import { oneOf, strict, wholeNumber } from '../pieces.ts'
import { StorageView } from '../views/storage.ts'
import { FileVersionView, FileView, PageWordView, PreviewView, UploadsView } from '../views/files.ts'

const reading = 'To read the place.'
const seeing = 'To see the place; to change it, for an earlier version.'
const changing = 'To change the place.'
const ownUpload = 'To have begun it.'

/** The newest, where none is said. */
const ofVersion = Type.Object({ version: Type.Optional(wholeNumber) }, strict)

/** Files, and how they come in: by tus 1.0. */
export const fileRoutes = {
  file: { does: 'What a file is now.', needs: 'To see the place.', answer: FileView },
  fileVersions: {
    does: 'Who put which version of a file there when, the newest first.',
    needs: changing,
    answer: Type.Array(FileVersionView),
  },
  restoreFileVersion: {
    does: 'Makes an earlier version of a file its newest one.',
    needs: changing,
    answer: FileView,
  },
  fileBytes: { does: 'The bytes of a file, or a part of them.', needs: reading, answer: fileBytes },
  fileVersionBytes: {
    does: 'The bytes of one version of a file, or a part of them.',
    needs: changing,
    answer: fileBytes,
  },
  zip: {
    does: 'What lies below a place as one ZIP file: what one may take of it.',
    needs: 'To see the place.',
    answer: fileBytes,
  },
  zipOfPlaces: {
    does: 'Several places as one ZIP file: what one may take of them.',
    needs: 'To see each of the places.',
    query: pickedQuery,
    answer: fileBytes,
  },
  filePreview: {
    does: 'What can be seen of a file, or of one version of it, without taking it.',
    needs: seeing,
    query: ofVersion,
    answer: PreviewView,
  },
  filePreviewPage: {
    does: 'A page of it as a picture, small or large.',
    needs: seeing,
    query: Type.Object({ ...ofVersion.properties, size: Type.Optional(oneOf('small', 'large')) }, strict),
    answer: bytes('image/webp'),
  },
  filePreviewWords: {
    does: 'What is written on a page of it, and where.',
    needs: seeing,
    query: ofVersion,
    answer: Type.Array(PageWordView),
  },
  storage: {
    does: 'What takes the room: by kind, by person, by home, the largest files, and those that nobody uses.',
    needs: 'To see storage.',
    answer: StorageView,
  },
  uploads: {
    does: 'The files that one has on their way, and what there is room for.',
    needs: 'To be in the workspace.',
    answer: UploadsView,
  },
  uploadProtocol: {
    does: 'Which part of the protocol is understood, and how large a file may be.',
    needs: 'To be in the workspace.',
    answer: inHeaders,
  },
  beginUpload: {
    does: 'Announces a file: Upload-Length says how large it is, Upload-Metadata its filename and its place, or of which file it is a version.',
    needs: 'To add to the place, or to change the file.',
    answer: inHeaders,
    status: 201,
  },
  uploadOffset: { does: 'How many bytes of a file have come.', needs: ownUpload, answer: inHeaders },
  appendToUpload: {
    does: 'Takes the next bytes of a file, from Upload-Offset on; with the last of them it is there.',
    needs: ownUpload,
    body: stream('application/offset+octet-stream'),
    answer: inHeaders,
  },
  endUpload: { does: 'Gives up a file that is on its way.', needs: ownUpload, answer: nothing },
} as const satisfies Readonly<Record<string, Route>>
