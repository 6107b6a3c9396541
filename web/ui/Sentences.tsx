import { TriangleAlert } from 'lucide-react'
import { type Privilege, type PrivilegeGroup, privilegeGroups } from '#core/levels/privilege.ts'
import { privilegeRisks, privilegeWords } from '#core/words/privilege.ts'
import { NoEffectYet } from './NoEffectYet.tsx'

interface Props {
  readonly privileges: readonly Privilege[]
  /** Those that have no effect where the role is held. */
  readonly asleep?: readonly Privilege[]
}

/** What somebody with these privileges could do, as sentences; those that reach far are marked, with why. */
export function Sentences({ privileges, asleep = [] }: Props) {
  if (privileges.length === 0)
    return <p>Nothing in the workspace, only what is shared with them place by place.</p>
  const groups = Object.entries(privilegeGroups) as [PrivilegeGroup, readonly Privilege[]][]
  return (
    <dl className="grid grid-cols-[6rem_minmax(0,1fr)] gap-x-3">
      {groups.map(([group, names]) => {
        const held = names.filter(each => privileges.includes(each))
        return (
          held.length > 0 && (
            <div key={group} className="col-span-2 grid grid-cols-subgrid border-t border-base-300 py-1.5">
              <dt className="quiet text-sm">{group}</dt>
              <dd>
                <ul className="text-sm">
                  {held.map(each => (
                    <Sentence key={each} privilege={each} isAsleep={asleep.includes(each)} />
                  ))}
                </ul>
              </dd>
            </div>
          )
        )
      })}
    </dl>
  )
}

function Sentence({ privilege, isAsleep }: { readonly privilege: Privilege; readonly isAsleep: boolean }) {
  const risk = privilegeRisks[privilege]
  return (
    <li className="mb-0.5">
      <span className={isAsleep ? 'quiet' : ''}>
        {privilegeWords[privilege]}
        {isAsleep && ' (no effect here: only over the whole workspace)'}
        <NoEffectYet privilege={privilege} />
      </span>
      {risk !== undefined && !isAsleep && <Risk words={risk} />}
    </li>
  )
}

/** That something is of high risk, and why. */
export const Risk = ({ words }: { readonly words: string }) => (
  <span className="flex gap-1.5 text-warning">
    <TriangleAlert size={14} className="mt-0.5 shrink-0" aria-label="High risk" />
    <span>{words}</span>
  </span>
)
