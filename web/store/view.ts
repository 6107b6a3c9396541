import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** How this browser shows things: kept here over visits, never sent. */
export interface View {
  readonly theme: 'system' | 'light' | 'dark'
  readonly openNodes: Readonly<Record<string, boolean>>
  readonly accessFolded: boolean
  /** The same on boards. */
  readonly boardAccessFolded: boolean
  /** Workspaces whose first steps are put away. */
  readonly stepsPutAway: readonly string[]
  /** Columns that are added to the list of people, by their heads. */
  readonly peopleColumns: readonly string[]
  /** The places that each person opened here last, the newest first. */
  readonly visited: Readonly<Record<string, readonly string[]>>
  /** Places that are picked to be changed together. */
  readonly picked: readonly string[]
  /** Whether boxes to pick places by stand in the tree. */
  readonly isPicking: boolean
  /** The place that is open. */
  readonly place: string | null
  /** Places that are cut out of where they are, to be put elsewhere. */
  readonly cut: readonly string[]
  /** The place into which something is dragged just now. */
  readonly under: string | null
  /** What is about to be moved, and where to: its effect is shown first. */
  readonly moving: { readonly places: readonly string[]; readonly to: string } | null
}

const key = 'noskel view'
const visitedAtMost = 10

function remembered(): View {
  const passing = { picked: [], isPicking: false, place: null, cut: [], under: null, moving: null }
  const kept = {
    theme: 'system',
    openNodes: {},
    accessFolded: false,
    boardAccessFolded: true,
    peopleColumns: [],
    visited: {},
    stepsPutAway: [],
  } as const
  const fresh: View = { ...kept, ...passing }
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
    cut: (state, { payload }: PayloadAction<readonly string[]>) => {
      state.cut = [...payload]
    },
    dragOver: (state, { payload }: PayloadAction<string | null>) => {
      state.under = payload
    },
    moveTo: (state, { payload }: PayloadAction<View['moving']>) => {
      state.moving = payload === null ? null : { ...payload, places: [...payload.places] }
      state.cut = []
    },
    showPlace: (state, { payload }: PayloadAction<string | null>) => {
      state.place = payload
    },
    addPeopleColumn: (state, { payload }: PayloadAction<{ head: string; isAdded: boolean }>) => {
      const others = state.peopleColumns.filter(each => each !== payload.head)
      state.peopleColumns = payload.isAdded ? [...others, payload.head] : others
    },
    visit: (state, { payload: { person, place } }: PayloadAction<{ person: string; place: string }>) => {
      const others = (state.visited[person] ?? []).filter(each => each !== place)
      state.visited[person] = [place, ...others].slice(0, visitedAtMost)
    },
    putStepsAway: (state, { payload }: PayloadAction<string>) => {
      state.stepsPutAway = [...state.stepsPutAway, payload]
    },
    foldAccess: (state, { payload }: PayloadAction<{ isBoard: boolean; isFolded: boolean }>) => {
      state[payload.isBoard ? 'boardAccessFolded' : 'accessFolded'] = payload.isFolded
    },
  },
})

export const {
  addPeopleColumn,
  chooseTheme,
  cut,
  dragOver,
  moveTo,
  openNode,
  openNodes,
  foldAccess,
  pick,
  putStepsAway,
  showPlace,
  startPicking,
  visit,
} = view.actions

export const remember = (state: View) => localStorage.setItem(key, JSON.stringify(state))
