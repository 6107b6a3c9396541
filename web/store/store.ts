import { configureStore } from '@reduxjs/toolkit'
import { useDispatch, useSelector } from 'react-redux'
import { api } from '../api/api.ts'
import { message } from './message.ts'
import { uploads } from './uploads.ts'
import { view } from './view.ts'

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    message: message.reducer,
    uploads: uploads.reducer,
    view: view.reducer,
  },
  middleware: withDefaults => withDefaults().concat(api.middleware),
  // What comes from the server is drawn with the next frame, not told with it and drawn with the one after.
  enhancers: withDefaults => withDefaults({ autoBatch: { type: 'tick' } }),
})

type AppState = ReturnType<typeof store.getState>
export type AppDispatch = typeof store.dispatch
export const useAppDispatch = useDispatch.withTypes<AppDispatch>()
export const useAppSelector = useSelector.withTypes<AppState>()
