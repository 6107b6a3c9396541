import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { RoleDetailView, RolesView } from '#contract/views/roles.ts'
import {
  isPrivilege,
  needsOf,
  type Privilege,
  type PrivilegeGroup,
  privilegeGroups,
} from '#core/levels/privilege.ts'
import { privilegeRisks, privilegeWords } from '#core/words/privilege.ts'
import { NoEffectYet } from '../../ui/NoEffectYet.tsx'
import { listed, nounFor, peopleWords } from '#core/words/english.ts'
import { useRolesQuery } from '../../api/roles.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { ChoiceRow } from '../../ui/ChoiceRow.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { Panel } from '../../ui/Panel.tsx'
import { Risk } from '../../ui/Sentences.tsx'
import { Tick } from '../../ui/Tick.tsx'
import { NotYet } from '../../ui/NotYet.tsx'
import { editsOf, mayToggle, toggled } from './draft.ts'
import { RolesHead } from './RolesHead.tsx'

const groups = Object.entries(privilegeGroups) as [PrivilegeGroup, readonly Privilege[]][]

/** From the other side: each privilege with the roles that hold it and how many people have it by them. */
export function PrivilegesScreen() {
  const { slug } = useHere()
  const { id = '' } = useParams()
  const navigate = useNavigate()
  const { data: view, error } = useRolesQuery(slug)
  const [find, setFind] = useState('')
  const open = (target: string) => void navigate(`/at/${slug}/roles/privileges${target}`)
  if (view === undefined) return <NotYet error={error} />
  const chosen = isPrivilege(id) ? id : undefined
  const wanted = find.trim().toLowerCase()
  const fits = (each: Privilege) => `${each} ${privilegeWords[each]}`.toLowerCase().includes(wanted)
  return (
    <div className="beside [--panel:27rem]">
      <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
        <RolesHead>
          <input
            className="field max-w-66"
            data-find
            aria-label="Find privileges"
            placeholder="f  Name of a privilege"
            value={find}
            onChange={event => setFind(event.target.value)}
          />
        </RolesHead>
        <table className="sheet">
          <thead>
            <tr>
              <th scope="col">Privilege</th>
              <th scope="col">Roles</th>
              <th scope="col" className="text-right">
                People
              </th>
            </tr>
          </thead>
          {groups.map(([group, names]) => (
            <Group
              key={group}
              group={group}
              names={names.filter(fits)}
              view={view}
              chosen={chosen}
              onChoose={each => open(`/${encodeURIComponent(each)}`)}
            />
          ))}
        </table>
      </main>
      {chosen !== undefined && (
        <PrivilegePanel key={chosen} view={view} privilege={chosen} onClose={() => open('')} />
      )}
    </div>
  )
}

interface GroupProps {
  readonly group: string
  readonly names: readonly Privilege[]
  readonly view: RolesView
  readonly chosen: Privilege | undefined
  readonly onChoose: (privilege: Privilege) => void
}

const Group = ({ group, names, view, chosen, onChoose }: GroupProps) =>
  names.length > 0 && (
    <tbody>
      <tr>
        <th scope="rowgroup" colSpan={3} className="pt-3">
          {group}
        </th>
      </tr>
      {names.map(each => (
        <ChoiceRow
          key={each}
          name={
            <>
              <span className="inline-block first-letter:uppercase">{privilegeWords[each]}</span>
              <NoEffectYet privilege={each} />
            </>
          }
          isWrapping
          isChosen={each === chosen}
          onChoose={() => onChoose(each)}
        >
          <td>
            {holding(view, each)
              .map(role => role.name)
              .join(', ')}
          </td>
          <td className="text-right">{view.people[each]}</td>
        </ChoiceRow>
      ))}
    </tbody>
  )

const holding = (view: RolesView, privilege: Privilege): RoleDetailView[] =>
  view.roles.filter(role => role.privileges.includes(privilege))

interface PanelProps {
  readonly view: RolesView
  readonly privilege: Privilege
  readonly onClose: () => void
}

/** One privilege: what it needs, why it reaches far, and every role with a tick to put it in or take it out. */
function PrivilegePanel({ view, privilege, onClose }: PanelProps) {
  const [turned, setTurned] = useState<RoleDetailView>()
  const words = privilegeWords[privilege]
  const needs = needsOf(privilege)
  const risk = privilegeRisks[privilege]
  const count = view.people[privilege]
  return (
    <Panel title={`${words.charAt(0).toUpperCase()}${words.slice(1)}`} onClose={onClose}>
      <p className="mb-2">
        {count === 0 ? 'Nobody has it.' : `${peopleWords(count)} ${nounFor(count, 'has', 'have')} it.`}
        {needs.length > 0 &&
          ` It includes what it needs: to ${listed(needs.map(each => privilegeWords[each]))}.`}
      </p>
      {risk !== undefined && <Risk words={risk} />}
      <ul className="mt-3">
        {view.roles.map(role => (
          <li key={role.id} className="border-t border-base-300 py-1.5">
            <Tick
              isOn={role.privileges.includes(privilege)}
              isDisabled={!mayToggle(view, role, privilege)}
              onTick={() => setTurned(role)}
            >
              {role.name}
              <span className="quiet text-sm">
                {' '}
                · {peopleWords(role.people)}
                {role.builtIn && ' · locked'}
              </span>
            </Tick>
            {turned?.id === role.id && (
              <Turning role={role} privilege={privilege} onDone={() => setTurned(undefined)} />
            )}
          </li>
        ))}
      </ul>
    </Panel>
  )
}

interface TurningProps {
  readonly role: RoleDetailView
  readonly privilege: Privilege
  readonly onDone: () => void
}

function Turning({ role, privilege, onDone }: TurningProps) {
  const isHeld = role.privileges.includes(privilege)
  const edits = editsOf(toggled({}, role, privilege))
  const decision = useDecision(edits, `${role.name} is changed.`, onDone)
  return (
    <Decision
      label={isHeld ? `Remove from ${role.name}` : `Add to ${role.name}`}
      onLeave={onDone}
      {...decision}
    />
  )
}
