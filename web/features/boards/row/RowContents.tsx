import { Link, useNavigate } from 'react-router'
import type { NodeView } from '#contract/views/content.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { fromList } from '../../../api/chosen-files.ts'
import { useChange } from '../../../api/use-change.ts'
import { useUpload } from '../../../api/use-upload.ts'
import { AddByName } from '../../../ui/AddByName.tsx'
import { KindIcon } from '../../../ui/KindIcon.tsx'
import { pickFiles } from '../../../ui/pick-files.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { useOpenBoard } from '../board-context.ts'

/** The pages and files of a row, and ways to more of them. */
export function RowContents({ node }: { readonly node: NodeView }) {
  const { slug } = useOpenBoard()
  const upload = useUpload({ place: node.id, name: node.name, isVersion: false })
  return (
    <>
      {node.children.length === 0 && <p className="quiet">No pages and no files are in this row.</p>}
      <ul className="grid gap-1">
        {node.children.map(({ id, name, kind }) => (
          <li key={id}>
            <Link className="flex items-center gap-2 hover:underline" to={`/at/${slug}/content/${id}`}>
              <KindIcon kind={kind} />
              {name}
            </Link>
          </li>
        ))}
      </ul>
      {has(node.actions as ActionSet, 'add') && (
        <div className="mt-3 grid gap-2">
          <NewPage node={node} />
          <button
            type="button"
            className="btn-inline justify-self-start text-sm"
            onClick={() => void pickFiles('Files for the row').then(files => upload(fromList(files)))}
          >
            Upload files …
          </button>
        </div>
      )}
    </>
  )
}

/** A page is made by its name, and opened to be written. */
function NewPage({ node }: { readonly node: NodeView }) {
  const { slug } = useOpenBoard()
  const navigate = useNavigate()
  const { apply, problem, isBusy } = useChange(slug)
  const create = async (name: string) => {
    const edit = { kind: 'node.create', node: 'new:page', parent: node.id, as: 'page', name } as const
    const { applied } = await apply([edit], `The page ${name} is created.`)
    const page = applied?.made['new:page']
    if (page !== undefined) void navigate(`/at/${slug}/content/${page}`)
    return applied !== undefined
  }
  return (
    <>
      <AddByName label="Name of the new page" isBusy={isBusy} onAdd={create}>
        Add page
      </AddByName>
      <ProblemNote problem={problem} />
    </>
  )
}
