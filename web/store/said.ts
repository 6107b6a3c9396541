import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** The last thing that was done, said once at the foot of the screen and to screen readers. */
export const said = createSlice({
  name: 'said',
  initialState: { text: '', count: 0 },
  reducers: {
    say: (state, { payload }: PayloadAction<string>) => {
      state.text = payload
      state.count += 1
    },
  },
})

export const { say } = said.actions
