import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** How this browser shows things: kept here over visits, never sent. */
export interface View {
  readonly theme: 'system' | 'light' | 'dark'
  readonly openNodes: Readonly<Record<string, boolean>>
  readonly accessFolded: boolean
  /** Places that are picked to be changed together. */
  readonly picked: readonly string[]
  /** Whether boxes to pick places by stand in the tree. */
  readonly isPicking: boolean
  /** The place that is open. */
  readonly place: string | null
}

const key = 'noskel view'

function remembered(): View {
  const passing = { picked: [], isPicking: false, place: null }
  const fresh: View = { theme: 'system', openNodes: {}, accessFolded: false, ...passing }
  try {
    // What is picked and where one is are for now: nobody comes back to it.
    return { ...fresh, ...(JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<View>), ...passing }
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
    openNodes: (state, { payload }: PayloadAction<readonly string[]>) => {
      for (const id of payload) state.openNodes[id] = true
    },
    pick: (state, { payload }: PayloadAction<{ id: string; isPicked: boolean }>) => {
      const others = state.picked.filter(each => each !== payload.id)
      state.picked = payload.isPicked ? [...others, payload.id] : others
    },
    startPicking: (state, { payload }: PayloadAction<boolean>) => {
      state.isPicking = payload
      state.picked = []
    },
    showPlace: (state, { payload }: PayloadAction<string | null>) => {
      state.place = payload
    },
    foldAccess: (state, { payload }: PayloadAction<boolean>) => {
      state.accessFolded = payload
    },
  },
})

export const { chooseTheme, openNode, openNodes, foldAccess, pick, showPlace, startPicking } = view.actions

export const remember = (state: View) => localStorage.setItem(key, JSON.stringify(state))
