import type { ReactNode } from 'react'
import { useHere } from '../../api/use-here.ts'
import { toDecideOf, useRequestsQuery } from '../../api/requests.ts'
import { SectionHead } from '../../ui/SectionHead.tsx'

/** The head of the screens about roles; who sees none finds what is asked for only. */
export function RolesHead({ children }: { readonly children?: ReactNode }) {
  const { slug, workspace } = useHere()
  const { data } = useRequestsQuery(slug)
  const waiting = toDecideOf(data, 'role', 'privilege').length
  const requests = { to: '/requests', word: waiting === 0 ? 'Requests' : `Requests (${waiting})` }
  const views = [
    { to: '', word: 'List' },
    { to: '/privileges', word: 'Privileges' },
    { to: '/matrix', word: 'Matrix' },
    { to: '/levels', word: 'Access levels' },
    requests,
  ]
  return (
    <SectionHead
      title="Roles"
      base={`/at/${slug}/roles`}
      views={workspace.me.privileges.includes('view roles') ? views : [requests]}
    >
      {children}
    </SectionHead>
  )
}
