import { Panel } from './Panel.tsx'

/** In the place of a panel: what the address names is not there, or not for this reader. The same words for both. */
export const AbsentPanel = ({ what, onClose }: { readonly what: string; readonly onClose: () => void }) => (
  <Panel title={`${what} not found`} onClose={onClose}>
    <p className="mb-3">The address may be wrong, or it is not shared with you.</p>
    <button type="button" className="btn-inline text-sm" onClick={onClose}>
      Close
    </button>
  </Panel>
)
