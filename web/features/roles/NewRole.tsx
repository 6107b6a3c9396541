import type { EditRequest } from '#contract/edit-requests.ts'
import type { RoleDetailView, RolesView } from '#contract/views/roles.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { onSubmit } from '../../ui/on-submit.ts'
import { Panel } from '../../ui/Panel.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { Sentences } from '../../ui/Sentences.tsx'
import { useDraft } from '../../ui/use-draft.ts'
import { type RoleFields, RoleForm } from './RoleForm.tsx'
import { slotsFor } from './ranks.ts'

interface Props {
  readonly view: RolesView
  /** The role that it is a copy of; it begins from nothing without one. */
  readonly original: RoleDetailView | undefined
  readonly onClose: () => void
  readonly onMade: (role: string) => void
}

/** A role of the workspace's own, from nothing or from a copy. Nobody holds it yet, so it changes nobody's access. */
export function NewRole({ view, original, onClose, onMade }: Props) {
  const { slug } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [fields, keep, drop] = useDraft(
    `role ${slug} new ${original?.id ?? ''}`,
    beginningWith(view, original),
  )
  const name = fields.name.trim()
  const submit = async () => {
    const { privileges, ...rest } = fields
    const edit: EditRequest = {
      kind: 'role.create',
      role: 'new:role',
      ...rest,
      name,
      privileges: [...privileges],
    }
    const { applied } = await apply([edit], `The role ${name} is created. Nobody has it yet.`)
    const made = applied?.made['new:role']
    if (made === undefined) return
    drop()
    onMade(made)
  }
  return (
    <Panel
      title={original === undefined ? 'Create role' : `Create role from ${original.name}`}
      onClose={() => {
        drop()
        onClose()
      }}
    >
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <RoleForm view={view} role={undefined} before={[]} fields={fields} onFields={keep} />
        <section aria-label="What people with this role can do" className="border-t border-base-content pt-3">
          <h3 className="mb-1 font-bold">What people with this role can do</h3>
          <Sentences privileges={fields.privileges} />
        </section>
        <ProblemNote problem={problem} />
        <button className="btn btn-primary" disabled={isBusy || name === ''}>
          Create role
        </button>
      </form>
    </Panel>
  )
}

/** As the one that is copied, as far as one may give it: as high as it stands or one may, and what one holds there. */
function beginningWith(view: RolesView, original: RoleDetailView | undefined): RoleFields {
  const below = view.below ?? 0
  if (original === undefined)
    return { name: '', note: '', rank: lowRank(view), privileges: [], addressable: false, seatExempt: false }
  const rank = original.rank < below ? original.rank : lowRank(view)
  const { note, addressable, seatExempt } = original
  const privileges = original.privileges.filter(each => (view.mine[each] ?? 0) >= rank)
  return { name: `${original.name} (copy)`, note, rank, privileges, addressable, seatExempt }
}

/** Between two ranks near the foot of the ladder. */
const lowRank = ({ roles }: RolesView): number =>
  slotsFor(roles, undefined).find(slot => slot.roles.length === 0 && slot.rank < 30)?.rank ?? 15
