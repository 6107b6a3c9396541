import type { DetailedError, HttpRequest, Upload, UploadOptions } from 'tus-js-client'
import { addressOf } from '#contract/operations.ts'
import type { Problem } from '#contract/views/problem.ts'
import { type AppDispatch, store } from '../store/store.ts'
import { addUploads, changeUpload, dropUploads, type UploadItem } from '../store/uploads.ts'
import { api } from './api.ts'
import { unreachable } from './call.ts'
import { endUpload } from './files.ts'

/**
 * Sends files by tus: a few at once, each gone on with where it stopped. How far each is stands in the store for every page;
 * the files themselves only this one holds.
 */

const atOnce = 3
/** A line that breaks is tried again after so many milliseconds; then it waits to be told. */
const retryDelays = [0, 1000, 3000, 8000, 20_000, 60_000]
/** How often, in milliseconds, it is told how far a file is. */
const reportEvery = 200

const files = new Map<string, File>()
const going = new Map<string, Upload>()
const awaited = new Map<string, (file: string) => void>()
let nextKey = 1

export type Chosen = Pick<UploadItem, 'slug' | 'name' | 'path' | 'place' | 'isVersion' | 'existing'> & {
  readonly file: File
  /** Called with the file that it became, if this page is still open then. */
  readonly onMade?: ((file: string) => void) | undefined
}

const items = (): readonly UploadItem[] => store.getState().uploads.items

/** Puts files behind those that are being sent. */
export function sendFiles(dispatch: AppDispatch, chosen: readonly Chosen[]): void {
  const added = chosen.map(({ file, onMade, ...of }): UploadItem => {
    const key = `upload ${nextKey++}`
    files.set(key, file)
    if (onMade !== undefined) awaited.set(key, onMade)
    const state = of.existing === null ? 'waiting' : 'asks'
    return { ...of, key, size: file.size, sent: 0, state, problem: null, url: null }
  })
  dispatch(addUploads(added))
  goOn(dispatch)
}

/** Goes on with something of which the page no longer has the file; false where it is another one. */
export function giveFile(dispatch: AppDispatch, { key, name, size }: UploadItem, file: File): boolean {
  if (file.size !== size || file.name !== name) return false
  files.set(key, file)
  resume(dispatch, key)
  return true
}

/** Sends it as the next version of the file that has its name. */
export function asVersion(dispatch: AppDispatch, { key, existing }: UploadItem): void {
  if (existing === null) return
  dispatch(changeUpload({ key, place: existing, isVersion: true }))
  resume(dispatch, key)
}

export function pause(dispatch: AppDispatch, key: string): void {
  void going.get(key)?.abort()
  going.delete(key)
  dispatch(changeUpload({ key, state: 'paused' }))
  goOn(dispatch)
}

export function resume(dispatch: AppDispatch, key: string): void {
  dispatch(changeUpload({ key, state: 'waiting' }))
  goOn(dispatch)
}

/** Gives it up, with what of it has come. */
export function cancel(dispatch: AppDispatch, { key, url, slug }: UploadItem): void {
  void going.get(key)?.abort()
  going.delete(key)
  files.delete(key)
  awaited.delete(key)
  dispatch(dropUploads([key]))
  const id = url?.split('/').at(-1)
  if (id !== undefined) void dispatch(endUpload.initiate({ slug, id }))
  goOn(dispatch)
}

/** Begins as many of those that wait as may be sent at once. */
function goOn(dispatch: AppDispatch): void {
  for (const item of items()) {
    if (going.size >= atOnce) return
    const file = files.get(item.key)
    if (item.state === 'waiting' && file !== undefined && !going.has(item.key)) begin(dispatch, item, file)
  }
}

function begin(dispatch: AppDispatch, item: UploadItem, file: File): void {
  const { key } = item
  dispatch(changeUpload({ key, state: 'going' }))
  // Fetched with the first file.
  void import('tus-js-client').then(({ Upload }) => {
    const now = items().find(each => each.key === key)
    // Paused, or given up, before it began.
    if (now?.state !== 'going' || going.has(key)) return
    const upload: Upload = new Upload(
      file,
      optionsFor(dispatch, item, () => upload.url),
    )
    going.set(key, upload)
    upload.start()
  })
}

function optionsFor(dispatch: AppDispatch, item: UploadItem, addressNow: () => string | null): UploadOptions {
  const { key, slug, name, place, isVersion, url } = item
  let reportedAt = 0
  const end = (change: Partial<Pick<UploadItem, 'state' | 'sent' | 'problem'>>) => {
    going.delete(key)
    dispatch(changeUpload({ key, ...change }))
    goOn(dispatch)
  }
  return {
    endpoint: `/api${addressOf('beginUpload', { slug })}`,
    ...(url === null ? {} : { uploadUrl: url }),
    metadata: { filename: name, [isVersion ? 'version-of' : 'place']: place },
    retryDelays,
    storeFingerprintForResuming: false,
    onBeforeRequest: proveOwn,
    onUploadUrlAvailable: () => {
      const address = addressNow()
      if (address !== null) dispatch(changeUpload({ key, url: new URL(address, location.origin).pathname }))
    },
    onProgress: sent => {
      const at = performance.now()
      if (at < reportedAt + reportEvery) return
      reportedAt = at
      dispatch(changeUpload({ key, sent }))
    },
    onSuccess: ({ lastResponse }) => {
      files.delete(key)
      end({ state: 'done', sent: item.size })
      const made = lastResponse.getHeader('noskel-file')
      if (made !== undefined) awaited.get(key)?.(made)
      awaited.delete(key)
    },
    onError: error => {
      const problem = problemIn(error)
      end({ state: problem === unreachable ? 'paused' : 'refused', problem })
    },
  }
}

/** The session may be another one by now. */
function proveOwn(request: HttpRequest): void {
  const csrf = api.endpoints.session.select()(store.getState()).data?.csrf
  if (csrf !== undefined && csrf !== '') request.setHeader('x-noskel-csrf', csrf)
}

function problemIn(error: Error | DetailedError): Problem {
  const body = 'originalResponse' in error ? error.originalResponse?.getBody() : undefined
  try {
    return body === undefined ? unreachable : (JSON.parse(body) as Problem)
  } catch {
    return unreachable
  }
}
