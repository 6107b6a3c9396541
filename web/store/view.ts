import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** How this browser shows things: kept here over visits, never sent. */
export interface View {
  readonly theme: 'system' | 'light' | 'dark'
  readonly openNodes: Readonly<Record<string, boolean>>
  readonly accessFolded: boolean
}

const key = 'noskel view'

function remembered(): View {
  const fresh: View = { theme: 'system', openNodes: {}, accessFolded: false }
  try {
    return { ...fresh, ...(JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<View>) }
  } catch {
    return fresh
  }
}

export const view = createSlice({
  name: 'view',
  initialState: remembered,
  reducers: {
    chooseTheme: (state, { payload }: PayloadAction<View['theme']>) => {
      state.theme = payload
    },
    openNode: (state, { payload }: PayloadAction<{ id: string; open: boolean }>) => {
      state.openNodes[payload.id] = payload.open
    },
    foldAccess: (state, { payload }: PayloadAction<boolean>) => {
      state.accessFolded = payload
    },
  },
})

export const { chooseTheme, openNode, foldAccess } = view.actions

export const remember = (state: View) => localStorage.setItem(key, JSON.stringify(state))
