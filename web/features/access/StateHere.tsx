import { useState } from 'react'
import { Link } from 'react-router'
import type { AccessView, NodeView } from '#contract/views.ts'
import { withCommas } from '#core/words/impact.ts'
import { useHere } from '../../api/use-here.ts'
import { BreakSign } from '../../ui/BreakSign.tsx'
import { Day } from '../../ui/dates.tsx'
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
          <Inherited access={access} node={node} />
          {differing === 0 ? (
            '.'
          ) : (
            <>
              ;{' '}
              <button type="button" className="act" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
                {differing === 1 ? '1 place below differs' : `${withCommas(differing)} places below differ`}
              </button>
              .
            </>
          )}
        </span>
      </p>
      {isOpen && <Below below={access.below} moreBelow={access.moreBelow} hiddenBelow={access.hiddenBelow} />}
      <p className="quiet text-sm">
        {people === 1 ? '1 person can open it' : `${withCommas(people)} people can open it`}
        {node.isPublic && ', and everybody on the web'}.
      </p>
    </div>
  )
}

function Inherited({ access, node }: Props) {
  const { slug } = useHere()
  const own = access.grants.filter(grant => grant.isHere).length
  const { broken, above } = access
  if (node.home === 'person') return <>Your own: nothing comes from above</>
  if (broken !== null)
    return (
      <>
        Stopped what comes from above on{' '}
        <strong>
          <Day at={broken.at} />
        </strong>
        <span className="quiet"> ({broken.by})</span>; {own === 0 ? 'nothing' : own} of its own
      </>
    )
  if (node.home !== null || above === null)
    return (
      <>
        {node.home === null ? 'Follows what is above' : 'A home'}
        {ownWords(own, node.home !== null)}
      </>
    )
  return (
    <>
      Follows{' '}
      <Link className="font-semibold underline" to={`/at/${slug}/content/${above.id}`}>
        {above.name}
      </Link>
      {ownWords(own, false)}
    </>
  )
}

const ownWords = (own: number, isHome: boolean) =>
  isHome ? `, with ${own} of its own` : own === 0 ? ', with nothing of its own' : `, plus ${own} of its own`
