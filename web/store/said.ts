import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** The last thing that was done, said once at the foot of the screen and to screen readers. */
export interface Said {
  readonly text: string
  /** The entry of the history that it is, where it can be looked at and undone. */
  readonly revision?: number
}

const nothing: Said = { text: '' }

export const said = createSlice({
  name: 'said',
  initialState: nothing,
  reducers: { say: (_, { payload }: PayloadAction<Said>) => payload },
})

export const { say } = said.actions
