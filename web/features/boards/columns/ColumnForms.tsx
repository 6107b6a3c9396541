import { useState } from 'react'
import type { ColumnSettings } from '#contract/boards.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { ColumnView } from '#contract/views/boards.ts'
import { isSame } from '#core/base/same.ts'
import { isWrittenAlike } from '#core/boards/conversion.ts'
import { type KindName, kindNames } from '#core/boards/kind.ts'
import { columnKinds, kindOf } from '#core/boards/kinds/all.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useReceivers } from '../../../api/use-receivers.ts'
import { Decision } from '../../../ui/Decision.tsx'
import type { Named } from '../../../ui/PrincipalList.tsx'
import { Restriction } from '../../../ui/Restriction.tsx'
import { TextField } from '../../../ui/TextField.tsx'
import { useOpenBoard } from '../board-context.ts'
import { Emptied } from './Emptied.tsx'
import { SettingsFields } from './SettingsFields.tsx'

interface Fields {
  readonly name: string
  readonly kind: KindName
  readonly settings: ColumnSettings
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

const plainSettings = (kind: KindName): ColumnSettings => columnKinds[kind].settings.plain

interface DoneProps {
  readonly onDone: () => void
}

export function CreateColumn({ onDone }: DoneProps) {
  const { node, info, mayShare } = useOpenBoard()
  const [fields, setFields] = useState<Fields>({
    name: '',
    kind: 'text',
    settings: {},
    viewers: null,
    editors: null,
  })
  const last = info.columns.at(-1)?.order ?? 0
  const edit = {
    kind: 'column.create',
    column: 'new:column',
    board: node.id,
    order: last + 1,
    as: fields.kind,
    settings: fields.settings,
    ...sent(fields),
  } as const
  const isWaiting = fields.name.trim() === '' || wrongIn(fields) !== undefined
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

const wrongIn = ({ kind, settings }: Fields): string | undefined => kindOf({ kind }).settings.wrong(settings)

interface OneProps extends DoneProps {
  readonly column: ColumnView
}

export function ChangeColumn({ column, onDone }: OneProps) {
  const { mayShare } = useOpenBoard()
  const [fields, setFields] = useState<Fields>(column)
  const { viewers, editors, name } = sent(fields)
  // Who only arranges is not told who is named, and says nothing of it.
  const edit = {
    kind: 'column.change',
    column: column.id,
    name,
    ...(fields.kind === column.kind ? {} : { as: fields.kind }),
    settings: fields.settings,
    ...(mayShare ? { viewers, editors } : {}),
  } as const
  const isWaiting = name === '' || wrongIn(fields) !== undefined
  const decision = useDecision(isWaiting ? nothing : [edit], `The column ${name} is changed.`, onDone)
  return (
    <Decision label="Save column" isWaiting={isWaiting} onLeave={onDone} {...decision}>
      <ColumnFields fields={fields} mayShare={mayShare} onFields={setFields} />
      {!isWaiting && needsLook(column, fields) && (
        <Emptied column={column.id} as={fields.kind} settings={fields.settings} />
      )}
    </Decision>
  )
}

/** Whether cells could be emptied: by another kind, or by fewer things to choose from. */
const needsLook = (column: ColumnView, { kind, settings }: Fields): boolean =>
  !isWrittenAlike(column, { kind, settings }) || !isSame(column.settings, settings)

export function DeleteColumn({ column: { id, name }, onDone }: OneProps) {
  const decision = useDecision(
    [{ kind: 'column.delete', column: id }],
    `The column ${name} is deleted.`,
    onDone,
  )
  return (
    <Decision label={`Delete the column ${name}`} isDrastic onLeave={onDone} {...decision}>
      <p className="quiet text-sm">
        What stands in its cells is kept for thirty days: until then the column can be restored in the
        history.
      </p>
    </Decision>
  )
}

interface FieldsProps {
  readonly fields: Fields
  readonly mayShare: boolean
  readonly onFields: (fields: Fields) => void
}

function ColumnFields({ fields, mayShare, onFields }: FieldsProps) {
  const { slug } = useOpenBoard()
  const { receivers, noteOf } = useReceivers(slug)
  const options = receivers.map(each => ({ ...each, note: noteOf(each) }))
  const wrong = wrongIn(fields)
  return (
    <>
      <TextField
        label="Name of the column"
        required
        maxLength={200}
        value={fields.name}
        onValue={name => onFields({ ...fields, name })}
      />
      <label>
        <span className="label-line">Kind</span>
        <select
          className="choice"
          value={fields.kind}
          onChange={event => {
            const kind = event.target.value as KindName
            onFields({ ...fields, kind, settings: plainSettings(kind) })
          }}
        >
          {kindNames.map(kind => (
            <option key={kind}>{kind}</option>
          ))}
        </select>
      </label>
      <SettingsFields
        kind={fields.kind}
        settings={fields.settings}
        onSettings={settings => onFields({ ...fields, settings })}
      />
      {wrong !== undefined && <p className="text-sm text-error">{wrong}</p>}
      {mayShare && (
        <>
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
          <p className="quiet text-sm">Stewards of the board always see and edit every column.</p>
        </>
      )}
    </>
  )
}
