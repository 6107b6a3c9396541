import { useState } from 'react'
import type { RolesView } from '#contract/views/roles.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import { TextField } from '../../ui/TextField.tsx'
import { Tick } from '../../ui/Tick.tsx'
import { Ladder } from './Ladder.tsx'
import { PrivilegeTicks } from './PrivilegeTicks.tsx'

export interface RoleFields {
  readonly name: string
  readonly note: string
  readonly rank: number
  readonly privileges: readonly Privilege[]
  readonly addressable: boolean
  readonly seatExempt: boolean
}

interface Props {
  readonly view: RolesView
  readonly role: string | undefined
  readonly fields: RoleFields
  /** What it was before: what is held already stays, whoever holds it. */
  readonly before: readonly Privilege[]
  readonly onFields: (fields: RoleFields) => void
}

/** All that a role is. What cannot be chosen says why. */
export function RoleForm({ view, role, fields, before, onFields }: Props) {
  const [status, setStatus] = useState('')
  const set = (part: Partial<RoleFields>) => onFields({ ...fields, ...part })
  const mayGive = (each: Privilege) => before.includes(each) || (view.mine[each] ?? 0) >= fields.rank
  return (
    <>
      <TextField label="Name" required maxLength={200} value={fields.name} onValue={name => set({ name })} />
      <TextField label="Description" maxLength={2000} value={fields.note} onValue={note => set({ note })} />
      <Ladder
        view={view}
        role={role}
        name={fields.name.trim()}
        rank={fields.rank}
        onRank={rank => set({ rank })}
      />
      <PrivilegeTicks
        held={fields.privileges}
        mayGive={mayGive}
        onHeld={(privileges, words) => {
          set({ privileges })
          setStatus(words)
        }}
      />
      <p role="status" className={status === '' ? 'sr-only' : 'border-l-4 border-primary pl-3 text-sm'}>
        {status}
      </p>
      <Tick isOn={fields.addressable} onTick={addressable => set({ addressable })}>
        Can be mentioned in channels, to address everybody with this role
      </Tick>
      <Tick isOn={fields.seatExempt} onTick={seatExempt => set({ seatExempt })}>
        Uses no seat, for people with no other role
      </Tick>
    </>
  )
}
