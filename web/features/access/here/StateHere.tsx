import { useState } from 'react'
import { Link } from 'react-router'
import type { AccessView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { counted, nounFor, numberWords, peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { BreakSign } from '../../../ui/BreakSign.tsx'
import { Day } from '../../../ui/dates.tsx'
import { Below } from './Below.tsx'

interface Props {
  readonly access: Extract<AccessView, { detail: 'all' }>
  readonly node: NodeView
}

/** Where access here comes from, in one sentence; what below differs, behind it; and how many people it comes to. */
export function StateHere({ access, node }: Props) {
  const [isOpen, setOpen] = useState(false)
  const people = access.peopleCount
  const differing = access.below.length + access.moreBelow + access.hiddenBelow
  return (
    <div className="mb-3">
      <p className="flex gap-2">
        {access.broken !== null && node.home !== 'person' && <BreakSign />}
        <span className="min-w-0">
          <Inherited access={access} node={node} />.{' '}
          {differing > 0 && (
            <button
              type="button"
              className="btn-inline"
              aria-expanded={isOpen}
              onClick={() => setOpen(!isOpen)}
            >
              {counted(differing, 'place below differs', 'places below differ')}
            </button>
          )}
        </span>
      </p>
      {isOpen && <Below below={access.below} moreBelow={access.moreBelow} hiddenBelow={access.hiddenBelow} />}
      <p className="quiet text-sm">
        {peopleWords(people)} can open it
        {node.isPublic && ', and everybody on the web'}.
      </p>
    </div>
  )
}

function Inherited({ access, node }: Props) {
  const { slug } = useHere()
  const own = access.grants.filter(grant => grant.isHere).length
  const { broken, above } = access
  if (node.home === 'person') return <>Your private folder: nobody else has access</>
  if (broken !== null)
    return (
      <>
        Inheritance broken on{' '}
        <strong>
          <Day at={broken.at} />
        </strong>{' '}
        by {broken.by}, {ownWords(own)}
      </>
    )
  if (node.home !== null || above === null)
    return (
      <>
        {node.home === null ? 'Inherits from the place above' : 'A home: nothing is inherited'},{' '}
        {ownWords(own)}
      </>
    )
  return (
    <>
      Inherits from{' '}
      <Link className="font-semibold underline" to={`/at/${slug}/content/${above.id}`}>
        {above.name}
      </Link>
      , {ownWords(own)}
    </>
  )
}

const ownWords = (own: number) =>
  own === 0 ? 'no own grants' : `${numberWords(own)} own ${nounFor(own, 'grant', 'grants')}`
