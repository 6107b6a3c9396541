import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** The last thing that was done, said once at the foot of the screen and to screen readers. */
export interface Message {
  readonly text: string
  /** The entry of the history that it is, where it can be looked at and undone. */
  readonly revision?: number
}

const nothing: Message = { text: '' }

export const message = createSlice({
  name: 'message',
  initialState: nothing,
  reducers: { say: (_, { payload }: PayloadAction<Message>) => payload },
})

export const { say } = message.actions
