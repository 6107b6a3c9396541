import { useState } from 'react'
import type { CopiedAccessView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { useAccessToCopyQuery } from '../../../api/access.ts'
import { usePlacesQuery } from '../../../api/people.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { counted } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Combobox, type Option } from '../../../ui/Combobox.tsx'
import { Decision } from '../../../ui/Decision.tsx'
import { FilterWords } from '../../../ui/FilterWords.tsx'

/** Gives here what is given at another place: its access as it is set there, or its people by name. */
export function TakeOver({ node }: { readonly node: NodeView }) {
  const [isOpen, setOpen] = useState(false)
  if (!isOpen)
    return (
      <button type="button" className="btn-inline text-sm" onClick={() => setOpen(true)}>
        Copy access from another place …
      </button>
    )
  return <Taking node={node} onDone={() => setOpen(false)} />
}

interface Props {
  readonly node: NodeView
  readonly onDone: () => void
}

const whats = { access: 'Its grants', people: 'Its people, by name' } as const
type What = (typeof whats)[keyof typeof whats]

function Taking({ node, onDone }: Props) {
  const { slug } = useHere()
  const [typed, setTyped] = useState('')
  const [from, setFrom] = useState<Option>()
  const [what, setWhat] = useState<What>(whats.access)
  const { data: places = [] } = usePlacesQuery({ slug, find: typed }, { skip: typed.trim() === '' })
  const query = {
    slug,
    id: node.id,
    from: from?.value ?? '',
    what: what === whats.access ? 'access' : 'people',
  } as const
  const { currentData: taken } = useAccessToCopyQuery(query, { skip: from === undefined })
  return (
    <div className="w-full bg-base-200 p-3">
      <Combobox
        label="The other place"
        placeholder={from === undefined ? 'Copy access from' : `${from.name}, or another place`}
        nobody="No place found that you share"
        options={places
          .filter(each => each.id !== node.id)
          .map(({ id, name, path }) => ({ value: id, name, note: path }))}
        onTyped={setTyped}
        onChoose={setFrom}
      />
      {from === undefined ? (
        <p className="mt-2 flex justify-end">
          <button type="button" className="btn-plain" onClick={onDone}>
            Cancel
          </button>
        </p>
      ) : (
        <>
          <div className="mt-3">
            <FilterWords label="What" words={[whats.access, whats.people]} chosen={what} onChoose={setWhat} />
          </div>
          {taken === undefined ? (
            <p className="quiet mt-2 text-sm">Loading …</p>
          ) : (
            <Offered key={`${from.value} ${what}`} node={node} taken={taken} onDone={onDone} />
          )}
        </>
      )}
    </div>
  )
}

function Offered({ node, taken, onDone }: Props & { readonly taken: CopiedAccessView }) {
  if (taken.edits.length === 0)
    return (
      <p className="mt-2">
        Everybody who has access there already has it here.{' '}
        <button type="button" className="btn-inline" onClick={onDone}>
          Close
        </button>
      </p>
    )
  return <Giving node={node} taken={taken} onDone={onDone} />
}

function Giving({ node, taken, onDone }: Props & { readonly taken: CopiedAccessView }) {
  const confirmation = `The access of ${taken.from.name} is copied to ${node.name}.`
  const decision = useDecision(taken.edits, confirmation, onDone)
  const count = counted(taken.edits.length, 'grant', 'grants')
  return (
    <Decision label={`Copy ${count}`} onLeave={onDone} {...decision}>
      <p className="text-sm">The grants on this place stay. Grants add up.</p>
      {taken.leftOut.length > 0 && (
        <ul className="border-l-4 border-warning pl-3 text-sm">
          {taken.leftOut.map(each => (
            <li key={each}>{each}</li>
          ))}
        </ul>
      )}
    </Decision>
  )
}
