import { Outlet } from 'react-router'
import { problemType, refusalStatus } from '#contract/problem.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import { lacksPrivilegeWords } from '#core/words/refusal.ts'
import { useHere } from '../api/use-here.ts'
import { NotYet } from '../ui/NotYet.tsx'

/** Screens that are of use with one of these privileges, over whomever: who has none is told so, not let fill in a form in vain. */
export function OnlyWith({ one }: { readonly one: readonly [Privilege, ...Privilege[]] }) {
  const { me } = useHere().workspace
  return one.some(each => me.privileges.includes(each)) ? (
    <Outlet />
  ) : (
    <NotYet error={lacking(one[0], me.kind)} />
  )
}

/** Guests hold no roles, so there is none for them to request. */
function lacking(privilege: Privilege, kind: 'member' | 'guest'): Problem {
  const { title, instead } = lacksPrivilegeWords(privilege)
  const code = 'privilege-missing'
  const problem = { type: problemType(code), status: refusalStatus[code], title, detail: instead }
  return kind === 'guest' ? problem : { ...problem, lacks: privilege }
}
