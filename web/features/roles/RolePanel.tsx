import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { RoleDetailView, RolesView } from '#contract/views/roles.ts'
import { listed } from '#core/words/english.ts'
import { useHere } from '../../api/use-here.ts'
import { useDecision } from '../../api/use-decision.ts'
import { Day } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { Drafted } from '../../ui/Drafted.tsx'
import { Panel } from '../../ui/Panel.tsx'
import { Sentences } from '../../ui/Sentences.tsx'
import { useDraft } from '../../ui/use-draft.ts'
import { DeleteRole } from './DeleteRole.tsx'
import { Holders } from './Holders.tsx'
import { type RoleFields, RoleForm } from './RoleForm.tsx'
import { standingOf } from './ranks.ts'

interface Props {
  readonly view: RolesView
  readonly role: RoleDetailView
  readonly onClose: () => void
  readonly onCopy: () => void
}

/** One role: what its holders could do in words, whom they outrank, who they are; and changing it. */
export function RolePanel({ view, role, onClose, onCopy }: Props) {
  const [act, setAct] = useState<'change' | 'delete'>()
  const close = () => setAct(undefined)
  return (
    <Panel title={role.name} onClose={onClose}>
      {role.note !== '' && <p className="mb-2">{role.note}</p>}
      <About role={role} />
      {act === 'change' && <ChangeRole view={view} role={role} onDone={close} />}
      {act === 'delete' && <DeleteRole view={view} role={role} onLeave={close} onDone={onClose} />}
      {act === undefined && (
        <>
          <p className="mb-3 flex flex-wrap gap-2">
            {role.mayChange && (
              <button type="button" className="btn-main" onClick={() => setAct('change')}>
                Edit role …
              </button>
            )}
            {view.below !== null && (
              <button type="button" className="btn-plain" onClick={onCopy}>
                Copy role …
              </button>
            )}
            {role.mayChange && (
              <button type="button" className="btn-plain text-error" onClick={() => setAct('delete')}>
                Delete role …
              </button>
            )}
          </p>
          <h3 className="mb-1 font-bold">Rank</h3>
          <p className="mb-4 text-sm">{standingOf(view.roles, role.id, role.rank)}</p>
          <h3 className="mb-1 font-bold">What people with this role can do</h3>
          <Sentences privileges={role.privileges} />
        </>
      )}
      <Holders role={role} />
    </Panel>
  )
}

/** Where a role comes from, and what hangs on it besides its holders. */
function About({ role }: Pick<Props, 'role'>) {
  const marks = [
    ...(role.builtIn ? ['built in, cannot be changed. Copy it to create your own'] : []),
    ...(role.isDefault ? ['new members get it'] : []),
    ...(role.asksTwoStep ? ['two-step sign-in required'] : []),
    ...(role.addressable ? ['can be mentioned in channels'] : []),
    ...(role.seatExempt ? ['uses no seat'] : []),
    ...(role.offeredBy.length > 0 ? [`used by ${listed(role.offeredBy)}`] : []),
  ]
  return (
    <p className="quiet mb-3 text-sm">
      {role.madeAt !== null && (
        <>
          Created <Day at={role.madeAt} />
          {role.madeBy !== null && ` by ${role.madeBy}`}
          {marks.length > 0 && ' · '}
        </>
      )}
      {marks.join(' · ')}
    </p>
  )
}

const fieldsOf = ({ name, note, rank, privileges, addressable, seatExempt }: RoleDetailView): RoleFields => ({
  name,
  note,
  rank,
  privileges,
  addressable,
  seatExempt,
})

function ChangeRole({ view, role, onDone }: Pick<Props, 'view' | 'role'> & { readonly onDone: () => void }) {
  const { slug } = useHere()
  const [fields, keep, drop] = useDraft(`role ${slug} ${role.id}`, fieldsOf(role))
  const leave = () => {
    drop()
    onDone()
  }
  const isChange = fields.name.trim() !== '' && JSON.stringify(fields) !== JSON.stringify(fieldsOf(role))
  return (
    <div className="mb-4">
      <Drafted
        onLeave={leave}
        decision={isChange ? <Deciding role={role} fields={fields} onDone={leave} /> : null}
      >
        <RoleForm view={view} role={role.id} before={role.privileges} fields={fields} onFields={keep} />
      </Drafted>
    </div>
  )
}

interface DecidingProps {
  readonly role: RoleDetailView
  readonly fields: RoleFields
  readonly onDone: () => void
}

function Deciding({ role, fields, onDone }: DecidingProps) {
  const { name, privileges, ...rest } = fields
  const edit: EditRequest = {
    kind: 'role.change',
    role: role.id,
    ...rest,
    name: name.trim(),
    privileges: [...privileges],
  }
  const decision = useDecision([edit], `${name.trim()} is changed.`, onDone)
  return <Decision label="Save role" onLeave={onDone} {...decision} />
}
