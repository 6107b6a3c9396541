import { api, mutation, query } from './api.ts'

/** Files: what they are, what can be seen of them, and what takes the room. */
const filesApi = api.injectEndpoints({
  endpoints: build => ({
    file: query(build, 'file'),
    fileVersions: query(build, 'fileVersions'),
    filePreview: query(build, 'filePreview'),
    filePreviewWords: query(build, 'filePreviewWords'),
    restoreFileVersion: mutation(build, 'restoreFileVersion', ['document', 'within']),
    uploads: query(build, 'uploads'),
    endUpload: mutation(build, 'endUpload'),
    storage: query(build, 'storage'),
  }),
})

export const {
  useFileQuery,
  useFileVersionsQuery,
  useFilePreviewQuery,
  useFilePreviewWordsQuery,
  useRestoreFileVersionMutation,
  useUploadsQuery,
  useStorageQuery,
} = filesApi

export const { endUpload } = filesApi.endpoints

interface At {
  readonly slug: string
  readonly id: string
  readonly version?: number | undefined
}

const fileAddress = ({ slug, id }: At): string => `/api/at/${slug}/nodes/${id}/file`

/** Where the bytes of a file, or of one version, are to be had. */
export const bytesAddress = (at: At): string =>
  at.version === undefined ? `${fileAddress(at)}/bytes` : `${fileAddress(at)}/versions/${at.version}/bytes`

/** Where a page of a preview is, as a picture; a small one of the first is what stands for the file in lists. */
export const pageAddress = (at: At, page: number, size: 'small' | 'large'): string =>
  `${fileAddress(at)}/preview/${page}?size=${size}${at.version === undefined ? '' : `&version=${at.version}`}`

/** The same of several places. */
export const zipOfPlacesAddress = (slug: string, places: readonly string[]): string =>
  `/api/at/${slug}/zip?places=${places.join(',')}`

export const zipAddress = ({ slug, id }: Omit<At, 'version'>): string => `/api/at/${slug}/nodes/${id}/zip`
