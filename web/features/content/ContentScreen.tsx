import { Outlet } from 'react-router'
import { MoveHere } from './MoveHere.tsx'
import { Tree } from './Tree.tsx'

/** Tree, the open place, and who has access to it: three columns side by side; on a phone one below the other. */
export const ContentScreen = () => (
  <div className="grid min-h-0 max-md:overflow-y-auto md:grid-cols-[17rem_minmax(0,1fr)]">
    <Tree />
    <Outlet />
    <MoveHere />
  </div>
)
