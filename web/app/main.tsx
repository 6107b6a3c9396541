import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { RouterProvider } from 'react-router/dom'
import { store } from '../store/store.ts'
import { remember } from '../store/view.ts'
import '../styles.css'
import { Dates } from './Dates.tsx'
import { fetchAhead, router } from './routes.tsx'
import { applyTheme } from './theme.ts'

applyTheme(store.getState().view.theme)
store.subscribe(() => {
  const { view } = store.getState()
  applyTheme(view.theme)
  remember(view)
})

const app = document.getElementById('app')
if (app === null) throw new Error('the page has no place for the app')
createRoot(app).render(
  <StrictMode>
    <Provider store={store}>
      <Dates>
        <RouterProvider router={router} />
      </Dates>
    </Provider>
  </StrictMode>,
)

window.addEventListener('load', () => setTimeout(fetchAhead, 0))
