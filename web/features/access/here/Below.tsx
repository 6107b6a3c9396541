import { Link } from 'react-router'
import type { AccessView, OwnAccessPlaceView } from '#contract/views/access.ts'
import { counted, listed, placesWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { BreakSign } from '../../../ui/BreakSign.tsx'

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
          </span>
          <span className="quiet block">{differsBy(each)}</span>
          {each.heldBack.length > 0 && (
            <span className="quiet block">
              A limit reduces the access of {listed(each.heldBack.map(person => person.name))}
            </span>
          )}
        </li>
      ))}
      {moreBelow > 0 && (
        <li className="quiet border-t border-base-300 py-1 text-sm">
          and {placesWords(moreBelow)} more, listed on the folders that contain them
        </li>
      )}
      {hiddenBelow > 0 && (
        <li className="quiet border-t border-base-300 py-1 text-sm">
          {placesWords(hiddenBelow)} that you cannot see
        </li>
      )}
    </ul>
  )
}

const differsBy = ({ isBroken, isDraft, isArchived, web, grants, limits }: OwnAccessPlaceView): string =>
  [
    isBroken ? 'inheritance broken' : '',
    grants > 0 ? counted(grants, 'grant', 'grants') : '',
    limits > 0 ? counted(limits, 'limit', 'limits') : '',
    isDraft ? 'draft' : '',
    isArchived ? 'archived' : '',
    web === 'published' ? 'on the web' : web === 'excluded' ? 'not on the web' : '',
  ]
    .filter(Boolean)
    .join(' · ')
