import { Link } from 'react-router'
import type { AccessView, GrantView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import type { Principal } from '#core/rules/principal.ts'
import { useExplanationQuery, useTeamsQuery } from '../../../api/api.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day } from '../../../ui/dates.tsx'
import { Level } from '../../../ui/Gauge.tsx'
import { Sum } from '../../../ui/Sum.tsx'
import { Way } from '../../../ui/Way.tsx'
import { Remedies } from './Remedies.tsx'
import { WhyOf } from './WhyOf.tsx'
import { TwoSentences } from '../../../ui/TwoSentences.tsx'

/** Whom the question is about: one person, or a team with all who are in it. */
export type WhyAbout = { readonly person: string } | { readonly principal: Principal; readonly name: string }

interface Props {
  readonly about: WhyAbout
  readonly access: AccessView
  readonly node: NodeView
  readonly onAbout: (about: WhyAbout | undefined) => void
}

/** The answer to "Why?": the sum for a person; for a team where its grants are set and whom they reach. */
export function Why({ about, access, node, onAbout }: Props) {
  return (
    <>
      <button type="button" className="btn-inline mb-2 text-sm" onClick={() => onAbout(undefined)}>
        Back
      </button>
      {'person' in about ? (
        <WhyPerson person={about.person} node={node} isShared={access.detail === 'all'} />
      ) : (
        <WhyTeam
          about={about}
          grants={access.detail === 'all' ? access.grants : []}
          node={node}
          onAbout={onAbout}
        />
      )}
      <div className="mt-4">
        <TwoSentences />
      </div>
    </>
  )
}

interface WhyPersonProps {
  readonly person: string
  readonly node: NodeView
  /** The reader shares there. */
  readonly isShared: boolean
}

function WhyPerson({ person, node, isShared }: WhyPersonProps) {
  const { slug, workspace } = useHere()
  const { currentData: sum } = useExplanationQuery({ slug, id: node.id, person })
  if (sum === undefined) return <p className="quiet">Loading …</p>
  return (
    <>
      <h2 className="text-lg font-bold">{sum.person}</h2>
      <p className="quiet mb-2 text-sm">on {sum.place}</p>
      <Way way={sum.way} label={`From the workspace to ${sum.place}`} />
      <h3 className="label-line">How it adds up</h3>
      <Sum sum={sum} timeZone={workspace.timeZone} />
      {isShared && <Remedies person={person} sum={sum} place={node.id} />}
      <Link
        className="link mt-3 inline-block text-sm"
        to={`/at/${slug}/oversight/check?ask=why&place=${node.id}&person=${person}`}
      >
        Open in Check, to share this answer
      </Link>
    </>
  )
}

interface TeamProps {
  readonly about: { readonly principal: Principal; readonly name: string }
  readonly grants: readonly GrantView[]
  readonly node: NodeView
  readonly onAbout: (about: WhyAbout) => void
}

function WhyTeam({ about, grants, node, onAbout }: TeamProps) {
  const { slug } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const [kind, id] = about.principal.split(':')
  const people =
    teams.find(team => team.id === id)?.people.filter(person => kind === 'team' || person.lead) ?? []
  return (
    <>
      <h2 className="text-lg font-bold">{about.name}</h2>
      <p className="quiet mb-3 text-sm">on {node.name}: grants of the whole team</p>
      <ul className="mb-4 border-b border-base-300">
        {grants
          .filter(grant => grant.principal === about.principal)
          .map(grant => (
            <li key={grant.id} className="border-t border-base-300 py-2">
              <Level actions={grant.actions} />
              <span className="block text-sm">
                {grant.isHere ? 'on this place' : `inherited from ${grant.at?.name ?? 'a place above'}`}
                {grant.by !== null && `, set by ${grant.by}`}, <Day at={grant.since} />
              </span>
            </li>
          ))}
      </ul>
      {people.length > 0 && (
        <>
          <h3 className="label-line">People with this access</h3>
          <ul>
            {people.map(person => (
              <li key={person.id} className="flex justify-between border-t border-base-300 py-1.5">
                {person.name}
                <WhyOf name={person.name} about={{ person: person.id }} onWhy={onAbout} />
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  )
}
