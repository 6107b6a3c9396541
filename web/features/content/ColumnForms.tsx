import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { ColumnView, NodeView } from '#contract/views/content.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { useReceivers } from '../../api/use-receivers.ts'
import { Decision } from '../../ui/Decision.tsx'
import type { Named } from '../../ui/PrincipalList.tsx'
import { Restriction } from '../../ui/Restriction.tsx'
import { TextField } from '../../ui/TextField.tsx'

interface Fields {
  readonly name: string
  readonly viewers: readonly Named[] | null
  readonly editors: readonly Named[] | null
}

const sent = ({ name, viewers, editors }: Fields) => ({
  name: name.trim(),
  viewers: principalsOf(viewers),
  editors: principalsOf(editors),
})

const principalsOf = (named: readonly Named[] | null) =>
  named === null ? null : named.map(each => each.principal)

const nothing: readonly EditRequest[] = []

interface CreateProps {
  readonly node: NodeView
  readonly mayShare: boolean
  /** The order of the last column: the new one stands after it. */
  readonly last: number
  readonly onDone: () => void
}

export function CreateColumn({ node, mayShare, last, onDone }: CreateProps) {
  const [fields, setFields] = useState<Fields>({ name: '', viewers: null, editors: null })
  const edit = {
    kind: 'column.create',
    column: 'new:column',
    board: node.id,
    order: last + 1,
    ...sent(fields),
  } as const
  const isWaiting = fields.name.trim() === ''
  const decision = useDecision(
    isWaiting ? nothing : [edit],
    `The column ${fields.name.trim()} is created.`,
    onDone,
  )
  return (
    <Decision label="Create column" isWaiting={isWaiting} onLeave={onDone} {...decision}>
      <ColumnFields fields={fields} mayShare={mayShare} onFields={setFields} />
    </Decision>
  )
}

interface OneProps {
  readonly column: ColumnView
  readonly onDone: () => void
}

export function ChangeColumn({ column, mayShare, onDone }: OneProps & { readonly mayShare: boolean }) {
  const [fields, setFields] = useState<Fields>(column)
  const { viewers, editors, name } = sent(fields)
  // Who only arranges is not told who is named, and says nothing of it.
  const edit = {
    kind: 'column.change',
    column: column.id,
    name,
    ...(mayShare ? { viewers, editors } : {}),
  } as const
  const decision = useDecision(name === '' ? nothing : [edit], `The column ${name} is changed.`, onDone)
  return (
    <Decision label="Save column" isWaiting={name === ''} onLeave={onDone} {...decision}>
      <ColumnFields fields={fields} mayShare={mayShare} onFields={setFields} />
    </Decision>
  )
}

export function DeleteColumn({ column: { id, name }, onDone }: OneProps) {
  const decision = useDecision(
    [{ kind: 'column.delete', column: id }],
    `The column ${name} is deleted.`,
    onDone,
  )
  return <Decision label={`Delete the column ${name}`} isDrastic onLeave={onDone} {...decision} />
}

interface FieldsProps {
  readonly fields: Fields
  readonly mayShare: boolean
  readonly onFields: (fields: Fields) => void
}

function ColumnFields({ fields, mayShare, onFields }: FieldsProps) {
  const { slug } = useHere()
  const { receivers, noteOf } = useReceivers(slug)
  const options = receivers.map(each => ({ ...each, note: noteOf(each) }))
  return (
    <>
      <TextField
        label="Name of the column"
        required
        maxLength={200}
        value={fields.name}
        onValue={name => onFields({ ...fields, name })}
      />
      {mayShare && (
        <div className="grid gap-3 sm:grid-cols-2">
          <Restriction
            title="Who can see it"
            everyone="Everyone who sees the row"
            chosen={fields.viewers}
            options={options}
            onChosen={viewers => onFields({ ...fields, viewers })}
          />
          <Restriction
            title="Who can edit it"
            everyone="Everyone who can change the row"
            chosen={fields.editors}
            options={options}
            onChosen={editors => onFields({ ...fields, editors })}
          />
        </div>
      )}
      {mayShare && <p className="quiet text-sm">Stewards of the board always see and edit every column.</p>}
    </>
  )
}
