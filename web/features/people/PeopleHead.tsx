import type { ReactNode } from 'react'
import { NavLink } from 'react-router'
import { useHere } from '../../api/use-here.ts'
import { SectionHead } from '../../ui/SectionHead.tsx'

/** The head of the screens about people: the list for who looks after some, colleagues for everybody. */
export function PeopleHead({ children }: { readonly children?: ReactNode }) {
  const { slug, workspace } = useHere()
  const { managesPeople, me } = workspace
  const base = `/at/${slug}/people`
  const mayInvite = me.privileges.some(each => each === 'invite members' || each === 'invite guests')
  const views = [
    ...(managesPeople ? [{ to: '', word: 'List' }] : []),
    { to: '/directory', word: 'Directory' },
    ...(mayInvite ? [{ to: '/onboarding', word: 'Join links and welcome sets' }] : []),
  ]
  return (
    <SectionHead title="People" base={base} views={views} beside={['/invite', '/import']}>
      {children}
      {mayInvite && (
        <span className="ml-auto flex gap-2">
          <NavLink className="btn-plain" to={`${base}/import`}>
            Import CSV
          </NavLink>
          <NavLink className="btn-main" to={`${base}/invite`}>
            Invite people
          </NavLink>
        </span>
      )}
    </SectionHead>
  )
}
