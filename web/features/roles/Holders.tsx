import { useState } from 'react'
import { Link } from 'react-router'
import type { HolderView, RoleDetailView } from '#contract/views/roles.ts'
import { nounFor, peopleWords } from '#core/words/english.ts'
import { usePeopleNamesQuery } from '../../api/api.ts'
import { useHoldersQuery } from '../../api/roles.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox } from '../../ui/Combobox.tsx'
import { When } from '../../ui/When.tsx'
import { Decision } from '../../ui/Decision.tsx'

interface Props {
  readonly role: RoleDetailView
}

const shownAtFirst = 12

/** Who holds a role, over whom and until when; given to somebody by name, and taken. */
export function Holders({ role }: Props) {
  const { slug, workspace } = useHere()
  const { data: holders = [] } = useHoldersQuery({ slug, id: role.id })
  const [isAll, setAll] = useState(false)
  const [given, setGiven] = useState<{ readonly id: string; readonly name: string }>()
  const [taken, setTaken] = useState<HolderView>()
  const mayGive = workspace.roles.some(each => each.id === role.id)
  const shown = isAll ? holders : holders.slice(0, shownAtFirst)
  return (
    <section aria-label="People with this role" className="mt-4 border-t border-base-content pt-3">
      <h3 className="mb-1 font-bold">
        {holders.length === 0
          ? 'Nobody has this role'
          : `${peopleWords(role.people)} ${nounFor(role.people, 'has', 'have')} this role`}
      </h3>
      {mayGive && <GiveTo holders={holders} onChoose={setGiven} />}
      {given !== undefined && (
        <Giving key={given.id} role={role} person={given} onDone={() => setGiven(undefined)} />
      )}
      <ul>
        {shown.map(holder => (
          <Holder key={holder.holding} holder={holder} onTake={() => setTaken(holder)}>
            {taken?.holding === holder.holding && (
              <Taking role={role} holder={holder} onDone={() => setTaken(undefined)} />
            )}
          </Holder>
        ))}
      </ul>
      {holders.length > shownAtFirst && (
        <button type="button" className="btn-inline mt-1 text-sm" onClick={() => setAll(!isAll)}>
          {isAll ? 'Show fewer' : `Show all ${holders.length}`}
        </button>
      )}
    </section>
  )
}

interface HolderProps {
  readonly holder: HolderView
  readonly onTake: () => void
  readonly children: React.ReactNode
}

function Holder({ holder, onTake, children }: HolderProps) {
  const { slug, workspace } = useHere()
  const { person, over, from, until, mayTake } = holder
  return (
    <li className="border-t border-base-300 py-1.5">
      <div className="flex items-baseline justify-between gap-3">
        <span>
          <Link className="link" to={`/at/${slug}/people/${person.id}`}>
            {person.name}
          </Link>
          <span className="quiet text-sm">
            {over !== null && ` over ${over}`}
            {person.status !== 'active' && ` · ${person.status}`}
            <When from={from} until={until} timeZone={workspace.timeZone} />
          </span>
        </span>
        {mayTake && (
          <button
            type="button"
            className="btn-inline text-sm"
            aria-label={`Remove from ${person.name}`}
            onClick={onTake}
          >
            Remove
          </button>
        )}
      </div>
      {children}
    </li>
  )
}

interface GiveToProps {
  readonly holders: readonly HolderView[]
  readonly onChoose: (person: { readonly id: string; readonly name: string }) => void
}

function GiveTo({ holders, onChoose }: GiveToProps) {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const held = new Set(holders.filter(each => each.over === null).map(each => each.person.id))
  const options = people
    .filter(each => each.kind === 'member' && !held.has(each.id))
    .map(each => ({ value: each.id, name: each.name, note: each.mail }))
  return (
    <div className="mb-2">
      <Combobox
        label="Assign to a person"
        placeholder="Assign to a person"
        options={options}
        onChoose={({ value, name }) => onChoose({ id: value, name })}
      />
    </div>
  )
}

interface Act {
  readonly role: RoleDetailView
  readonly onDone: () => void
}

function Giving({
  role,
  person,
  onDone,
}: Act & { readonly person: { readonly id: string; readonly name: string } }) {
  const edit = {
    kind: 'role.assign',
    person: person.id,
    role: role.id,
    scope: { over: 'workspace' },
    from: null,
    until: null,
  } as const
  const decision = useDecision([edit], `The role ${role.name} is assigned to ${person.name}.`, onDone)
  return <Decision label={`Assign ${role.name} to ${person.name}`} onLeave={onDone} {...decision} />
}

function Taking({ role, holder, onDone }: Act & { readonly holder: HolderView }) {
  const confirmation = `The role ${role.name} is removed from ${holder.person.name}.`
  const decision = useDecision([{ kind: 'role.unassign', holding: holder.holding }], confirmation, onDone)
  return (
    <Decision
      label={`Remove ${role.name} from ${holder.person.name}`}
      isDrastic
      onLeave={onDone}
      {...decision}
    />
  )
}
