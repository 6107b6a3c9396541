import { Type } from '@sinclair/typebox'
import { fileForm, instant } from '../terms.ts'
import { type View, oneOf, orNull, view } from '../pieces.ts'

/** What a file is now. */
export const FileView = view('FileView', {
  /** 0 where no bytes were ever put there. */
  version: Type.Number(),
  size: Type.Number(),
  /** The media type, by its bytes. */
  kind: Type.String(),
  changedAt: orNull(instant),
  /** `null` for somebody whom the reader does not know. */
  changedBy: orNull(Type.String()),
  /** Whether the reader may take it, not just look at it. */
  mayTake: Type.Boolean(),
})
export type FileView = View<typeof FileView>

export const FileVersionView = view('FileVersionView', {
  version: Type.Number(),
  size: Type.Number(),
  kind: Type.String(),
  changedAt: instant,
  changedBy: orNull(Type.String()),
  /** Equal ones are the same bytes. */
  hash: Type.String(),
  /** Which version it was made of, where it was brought back. */
  restoredFrom: orNull(Type.Number()),
})
export type FileVersionView = View<typeof FileVersionView>

/** What can be seen of a file without taking it. */
export const PreviewView = view('PreviewView', {
  version: Type.Number(),
  form: fileForm,
  /** How many pages can be asked for, each a picture: one of a picture. */
  pages: Type.Number(),
  /** The start of a text. */
  text: orNull(Type.String()),
  /** The first rows of a table. */
  rows: orNull(Type.Array(Type.Array(Type.String()))),
  /** Whether that is all of it. */
  isWhole: Type.Boolean(),
  /** What is written across it: for whom it is, and the day. */
  mark: orNull(Type.String()),
  /** Why there is nothing to see: of a kind that is not shown, broken, too large, it takes too long, or is only shown to who may take it. */
  fault: orNull(oneOf('kind', 'broken', 'too-large', 'takes-too-long', 'look-only')),
})
export type PreviewView = View<typeof PreviewView>

/** What is written on a page of a preview, in parts of its width and height from its top left. */
export const PageWordView = view('PageWordView', {
  text: Type.String(),
  x: Type.Number(),
  y: Type.Number(),
  width: Type.Number(),
  height: Type.Number(),
})
export type PageWordView = View<typeof PageWordView>

/** A file that is on its way. */
export const UploadView = view('UploadView', {
  id: Type.String(),
  name: Type.String(),
  place: Type.String(),
  isVersion: Type.Boolean(),
  size: Type.Number(),
  received: Type.Number(),
  madeAt: instant,
})
export type UploadView = View<typeof UploadView>

/** What one has on its way, and what there is room for. */
export const UploadsView = view('UploadsView', {
  uploads: Type.Array(UploadView),
  largestFile: Type.Number(),
  /** How many bytes more there is room for; `null` for as many as there are. */
  left: orNull(Type.Number()),
})
export type UploadsView = View<typeof UploadsView>
