import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import type { Problem } from '#contract/views/problem.ts'

/** Files on their way from this browser, in the order in which they were chosen. */
export interface UploadItem {
  readonly key: string
  readonly slug: string
  readonly name: string
  /** The folders that it came in. */
  readonly path: string
  /** Into which it goes, or of which it is a new version. */
  readonly place: string
  readonly isVersion: boolean
  /** The file of the same name that was there already. */
  readonly existing: string | null
  readonly size: number
  readonly sent: number
  /**
   * Gone on by its address; `lost` where the page was opened anew and has to be
   * given the file again; `asks` where one of its name is there.
   */
  readonly state: 'waiting' | 'going' | 'paused' | 'done' | 'refused' | 'lost' | 'asks'
  readonly problem: Problem | null
  /** Where it goes on, once it is announced. */
  readonly url: string | null
}

export interface Uploads {
  readonly items: readonly UploadItem[]
}

const nothing: Uploads = { items: [] }

type Part = Pick<UploadItem, 'key'> &
  Partial<Pick<UploadItem, 'sent' | 'state' | 'problem' | 'url' | 'place' | 'isVersion'>>

export const uploads = createSlice({
  name: 'uploads',
  initialState: nothing,
  reducers: {
    addUploads: ({ items }, { payload }: PayloadAction<readonly UploadItem[]>): Uploads => ({
      items: [...items, ...payload],
    }),
    changeUpload: ({ items }, { payload }: PayloadAction<Part>): Uploads => ({
      items: items.map(each => (each.key === payload.key ? { ...each, ...payload } : each)),
    }),
    dropUploads: ({ items }, { payload }: PayloadAction<readonly string[]>): Uploads => ({
      items: items.filter(each => !payload.includes(each.key)),
    }),
  },
})

export const { addUploads, changeUpload, dropUploads } = uploads.actions
