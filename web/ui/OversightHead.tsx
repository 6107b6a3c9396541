import { useParams } from 'react-router'
import type { WorkspaceView } from '#contract/views/workspace.ts'
import { SectionHead } from './SectionHead.tsx'

interface Props {
  readonly me: WorkspaceView['me']
}

/** The head of the screens of oversight: what everybody has of their own, and what roles show. */
export function OversightHead({ me }: Props) {
  const { slug = '' } = useParams()
  const mayLook = me.privileges.some(each => ['see the outline', 'see as', 'read the history'].includes(each))
  const views = [
    { to: '/check', word: 'Check' },
    { to: '/requests', word: 'Requests' },
    ...(me.kind === 'member'
      ? [
          { to: '/draft', word: 'Draft changes' },
          { to: '/history', word: 'History' },
        ]
      : []),
    ...(mayLook ? [{ to: '/sessions', word: 'Sessions' }] : []),
  ]
  return <SectionHead title="Oversight" base={`/at/${slug}/oversight`} views={views} />
}
