import type { ColumnView, NodeView, PrincipalName } from '#contract/views.ts'
import { useColumnsQuery } from '../../api/api.ts'
import { listed } from '#core/words/english.ts'
import { useHere } from '../../api/use-here.ts'

/** The columns of a board that one may know of, and for those who share there, whom some are restricted to. */
export function Columns({ node }: { readonly node: NodeView }) {
  const { slug } = useHere()
  const { data: columns = [] } = useColumnsQuery({ slug, id: node.id })
  if (columns.length === 0) return null
  const open = columns.filter(column => !column.isRestricted)
  const restricted = columns.filter(column => column.isRestricted)
  return (
    <section aria-label="Columns" className="mb-5">
      {open.length > 0 && (
        <p className="mb-1">
          <span className="quiet">Columns</span> {open.map(column => column.name).join(' · ')}
        </p>
      )}
      {restricted.map(column => (
        <Restricted key={column.id} column={column} />
      ))}
    </section>
  )
}

const Restricted = ({ column: { name, mine, viewers, editors } }: { readonly column: ColumnView }) => (
  <p className="border-l-4 border-warning py-0.5 pl-2 text-sm">
    <strong>{name}</strong> · you can {mine} it
    {viewers !== null && <> · visible to {namesOf(viewers)}</>}
    {editors !== null && <> · editable by {namesOf(editors)}</>}
  </p>
)

const namesOf = (names: readonly PrincipalName[]) => listed([...names.map(each => each.name), 'stewards'])
