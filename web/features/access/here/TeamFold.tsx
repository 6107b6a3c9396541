import type { PersonAccessView } from '#contract/views/access.ts'
import type { Principal } from '#core/rules/principal.ts'
import { useTeamsQuery } from '../../../api/api.ts'
import { useHere } from '../../../api/use-here.ts'
import { Level } from '../../../ui/Gauge.tsx'
import type { WhyAbout } from '../why/Why.tsx'
import { WhyOf } from '../why/WhyOf.tsx'

interface Props {
  readonly principal: Principal
  readonly people: readonly PersonAccessView[]
  readonly onWhy: (about: WhyAbout) => void
}

/** Who has access through a team, each with what results for them. */
export function TeamFold({ principal, people, onWhy }: Props) {
  const { slug } = useHere()
  const { data: teams } = useTeamsQuery(slug)
  const [kind, id] = principal.split(':')
  if (teams === undefined) return <p className="quiet text-sm">Loading …</p>
  const inTeam = teams.find(team => team.id === id)?.people.filter(each => kind === 'team' || each.lead) ?? []
  const reached = new Map(people.map(each => [each.id, each]))
  return (
    <ul aria-label="People in this team" className="my-1 ml-3 border-l border-base-300 pl-3 text-sm">
      {inTeam.map(each => (
        <li key={each.id} className="grid grid-cols-[minmax(0,1fr)_7.5rem_auto] items-center gap-2 py-0.5">
          <span className="truncate">{each.name}</span>
          <Level actions={reached.get(each.id)?.actions ?? 0} />
          <WhyOf name={each.name} about={{ person: each.id }} onWhy={onWhy} />
        </li>
      ))}
      {inTeam.length === 0 && <li className="quiet">Nobody that you know.</li>}
    </ul>
  )
}
