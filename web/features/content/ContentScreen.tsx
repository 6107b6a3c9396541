import { Outlet } from 'react-router'
import { Tree } from './Tree.tsx'

/** Tree, the open place, and who has access to it: three columns side by side. */
export const ContentScreen = () => (
  <div className="grid min-h-0 grid-cols-[17rem_minmax(0,1fr)]">
    <Tree />
    <Outlet />
  </div>
)
