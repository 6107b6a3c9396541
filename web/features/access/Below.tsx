import { Link } from 'react-router'
import type { AccessView, ExceptionView } from '#contract/views.ts'
import { useHere } from '../../api/use-here.ts'
import { BreakSign } from '../../ui/BreakSign.tsx'

type Props = Pick<Extract<AccessView, { detail: 'all' }>, 'below' | 'moreBelow' | 'hiddenBelow'>

/** Where below access differs from what flows down: listed, each one click away. */
export function Below({ below, moreBelow, hiddenBelow }: Props) {
  const { slug } = useHere()
  return (
    <ul aria-label="Places below that differ" className="mt-1">
      {below.map(each => (
        <li key={each.id} className="border-t border-base-300 py-1 text-sm">
          <span className="flex items-center gap-1.5">
            {each.isBroken && <BreakSign />}
            <Link className="truncate hover:underline" to={`/at/${slug}/content/${each.id}`}>
              {each.name}
            </Link>
            <span className="quiet ml-auto shrink-0">{differsBy(each)}</span>
          </span>
          {each.heldBack.length > 0 && (
            <span className="quiet block">
              {each.heldBack.map(person => person.name).join(', ')}: held back by a limit
            </span>
          )}
        </li>
      ))}
      {moreBelow > 0 && (
        <li className="quiet border-t border-base-300 py-1 text-sm">
          and {moreBelow === 1 ? '1 place' : `${moreBelow} places`} more: each is listed at what it lies in
        </li>
      )}
      {hiddenBelow > 0 && (
        <li className="quiet border-t border-base-300 py-1 text-sm">
          {hiddenBelow === 1 ? '1 place' : `${hiddenBelow} places`} you cannot see
        </li>
      )}
    </ul>
  )
}

const differsBy = ({ isBroken, isDraft, isArchived, web, grants, limits }: ExceptionView): string =>
  [
    isBroken ? 'broken' : '',
    grants > 0 ? `${grants} given` : '',
    limits > 0 ? `${limits} limited` : '',
    isDraft ? 'draft' : '',
    isArchived ? 'archived' : '',
    web === 'published' ? 'on the web' : web === 'excluded' ? 'not on the web' : '',
  ]
    .filter(Boolean)
    .join(' · ')
