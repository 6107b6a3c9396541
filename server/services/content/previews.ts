import { createHash } from 'node:crypto'
import type { FileForm } from '#contract/terms.ts'
import type { PageWordView, PreviewView } from '#contract/views/files.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Job, RenderFault } from '../../renderer/job.ts'
import { render } from '../../renderer/renderer.ts'
import type { Asker } from '../viewer/asker.ts'
import { workspaceOf } from '#core/state/state.ts'
import { noteOpened } from './opened.ts'
import { type FileAt, fileAt, findVersion, type Stored, storedVersion } from './files.ts'

/**
 * What can be seen of a file without taking it: pictures and texts that are made of it away from this process, once, and
 * kept beside it. Whoever may look and not take gets these and nothing else, with their name across it where the
 * workspace says so.
 */

const formOfKind: Readonly<Record<string, FileForm>> = {
  'image/jpeg': 'picture',
  'image/png': 'picture',
  'image/gif': 'picture',
  'image/webp': 'picture',
  'image/avif': 'picture',
  'image/tiff': 'picture',
  'application/pdf': 'pages',
  'text/plain': 'text',
  'text/markdown': 'document',
  'text/csv': 'rows',
  'text/tab-separated-values': 'rows',
}

/** How what is in a file is shown, by its media type. */
export function formOf(kind: string): FileForm {
  if (kind.startsWith('audio/')) return 'sound'
  if (kind.startsWith('video/')) return 'film'
  return formOfKind[kind] ?? 'none'
}

/** Of a picture or a page, its longer side in pixels. */
const most = { small: 320, large: 1800 } as const

interface Of {
  readonly id: string
  /** The newest where none is said: an earlier one is shown to whoever may put the next one there. */
  readonly version?: string | undefined
}

export async function previewView(parts: Parts, asker: Asker, of: Of): Promise<PreviewView> {
  const at = fileAt(asker, of.id)
  const nothing = { pages: 0, text: null, rows: null, isWhole: true, mark: markFor(parts, asker, at) }
  const stored = await findVersion(parts, asker, of)
  if (stored === undefined) return { ...nothing, version: 0, form: 'none', fault: 'kind' }
  noteOpened(parts, asker, at.node)
  const { version, kind } = stored
  const form = formOf(kind)
  if (form === 'none') return { ...nothing, version, form, fault: 'kind' }
  // Sound and film cannot be shown without handing them over.
  const isHandedOver = form === 'sound' || form === 'film'
  if (isHandedOver) return { ...nothing, version, form, fault: at.mayTake ? null : 'look-only' }
  const { content, fault = null } = await contentOf(parts, asker, { stored, form })
  if (fault !== null) return { ...nothing, version, form: 'none', fault }
  return { ...nothing, version, form, fault, ...content }
}

interface Content extends Partial<Pick<PreviewView, 'pages' | 'text' | 'rows' | 'isWhole'>> {
  readonly words?: readonly PageWordView[]
}

interface Shown {
  readonly stored: Stored
  readonly form: FileForm
}

async function contentOf(parts: Parts, asker: Asker, { stored, form }: Shown): Promise<Rendering> {
  const { path, kind } = stored
  const made = (what: string, job: Job) => contentOfJob(parts, asker, { stored, what, job })
  switch (form) {
    case 'picture': {
      // Whether it can be read shows where it is: a small one is looked at anyway.
      const { fault } = await pictureOf(parts, asker, { stored, page: 1, size: 'small' })
      return fault === undefined ? { content: { pages: 1 } } : { fault }
    }
    case 'pages':
      return made('pages', { kind: 'pages', path })
    case 'rows': {
      const separator = kind === 'text/csv' ? ',' : '\t'
      return made('rows', { kind: 'rows', path, separator })
    }
    default:
      return made('text', { kind: 'text', path })
  }
}

interface Made {
  readonly stored: Stored
  readonly what: string
  readonly job: Job
}

/** What a job makes of a file, kept; also that it could not. */
async function contentOfJob(parts: Parts, asker: Asker, { stored, what, job }: Made): Promise<Rendering> {
  const bytes = await parts.files.madeOf(stored.blob, `${what}.json`, async () => {
    const { content, fault } = await render(parts.renderer, asker.person, job)
    return Buffer.from(JSON.stringify({ content, fault }))
  })
  return JSON.parse(bytes.toString('utf8')) as Rendering
}

interface Rendering {
  readonly content?: Content
  readonly fault?: RenderFault
}

interface PageOf {
  readonly stored: Stored
  readonly page: number
  readonly size: keyof typeof most
}

/** A page as a picture, kept; also that it could not be made. */
async function pictureOf(
  parts: Parts,
  asker: Asker,
  { stored, page, size }: PageOf,
): Promise<{ readonly picture?: Buffer; readonly fault?: RenderFault }> {
  const { path, blob } = stored
  const job: Job =
    formOf(stored.kind) === 'pages'
      ? { kind: 'page', path, page, most: most[size] }
      : { kind: 'picture', path, most: most[size] }
  const bytes = await parts.files.madeOf(blob, `${page}-${size}.webp`, async () => {
    const { picture, fault } = await render(parts.renderer, asker.person, job)
    return picture ?? Buffer.from(JSON.stringify({ fault }))
  })
  // No picture begins like that.
  return bytes[0] === brace
    ? (JSON.parse(bytes.toString('utf8')) as { fault: RenderFault })
    : { picture: bytes }
}

const brace = '{'.charCodeAt(0)

export interface PageQuery extends Of {
  readonly page: string
  readonly size?: keyof typeof most | undefined
}

/** A picture with what tells it from others: whoever has the same is not sent it again. */
export interface Picture {
  readonly bytes: Uint8Array
  readonly tag: string
}

export async function previewPage(
  parts: Parts,
  asker: Asker,
  { page, size = 'large', ...of }: PageQuery,
): Promise<Picture> {
  const at = fileAt(asker, of.id)
  const stored = await pageIn(parts, asker, { ...of, page })
  const { picture } = await pictureOf(parts, asker, { stored, page: Number(page), size })
  if (picture === undefined) throw problemOf('no-preview')
  const line = markFor(parts, asker, at)
  const tag = tagOf([stored.blob, page, size, line ?? ''])
  if (line === null) return { bytes: picture, tag }
  const marked = await render(parts.renderer, asker.person, { kind: 'marked', bytes: picture, line })
  // Without its mark it does not leave.
  if (marked.picture === undefined) throw problemOf('no-preview')
  return { bytes: marked.picture, tag }
}

/** Tells nothing of the file itself. */
const tagOf = (parts: readonly string[]): string =>
  createHash('sha256').update(JSON.stringify(parts)).digest('base64url').slice(0, 22)

/** The file of which this is a page. */
async function pageIn(parts: Parts, asker: Asker, { page, ...of }: PageQuery): Promise<Stored> {
  const stored = await storedVersion(parts, asker, of)
  const form = formOf(stored.kind)
  if (form !== 'picture' && form !== 'pages') throw problemOf('no-preview')
  const pages =
    form === 'picture' ? 1 : ((await contentOf(parts, asker, { stored, form })).content?.pages ?? 0)
  if (!/^\d{1,6}$/.test(page) || Number(page) < 1 || Number(page) > pages) throw problemOf('no-preview')
  return stored
}

/** What is written on a page, to be marked and read by whoever cannot see the picture. */
export async function previewWords(
  parts: Parts,
  asker: Asker,
  of: PageQuery,
): Promise<readonly PageWordView[]> {
  const stored = await pageIn(parts, asker, of)
  if (formOf(stored.kind) === 'picture') return []
  const job = { kind: 'words', path: stored.path, page: Number(of.page) } as const
  const what = `${of.page}-words`
  const { content } = await contentOfJob(parts, asker, { stored, what, job })
  return content?.words ?? []
}

/** Whoever could take it anyway sees it without. */
function markFor({ clock }: Parts, { snapshot, subject }: Asker, { mayTake }: FileAt): string | null {
  if (mayTake || !workspaceOf(snapshot.state).marksPreviews) return null
  const day = new Date(clock()).toLocaleDateString('en-GB', { dateStyle: 'medium', timeZone: 'UTC' })
  return `${subject.person.name || subject.person.mail}, ${day}`
}
