import type { ReactNode } from 'react'
import { useParams } from 'react-router'
import { SectionHead } from './SectionHead.tsx'

interface Props {
  /** Whether the reader looks at anything by a privilege, or reads who did. */
  readonly hasLooks?: boolean
  readonly children?: ReactNode
}

/** The head of the screens of oversight. */
export function OversightHead({ hasLooks = true, children }: Props) {
  const { slug = '' } = useParams()
  const looks = hasLooks ? [{ to: '/looks', word: 'Looking' }] : []
  return (
    <SectionHead
      title="Oversight"
      base={`/at/${slug}/oversight`}
      views={[{ to: '/history', word: 'History' }, ...looks]}
    >
      {children}
    </SectionHead>
  )
}
