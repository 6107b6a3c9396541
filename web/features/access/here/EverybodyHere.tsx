import { useState } from 'react'
import { Link } from 'react-router'
import type { AccessView } from '#contract/views/access.ts'
import { numberWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Level } from '../../../ui/Gauge.tsx'
import type { KnownProps } from './AccessColumn.tsx'
import { WhyOf } from '../why/WhyOf.tsx'

type Props = KnownProps<Extract<AccessView, { detail: 'all' }>>

/** Hundreds at once would take a while to be drawn. */
const shownAtOnce = 50

/** Every person who can open the place, with what results for them. */
export function EverybodyHere({ access: { people, peopleCount }, node, onWhy }: Props) {
  const { slug, workspace } = useHere()
  const [shown, setShown] = useState(shownAtOnce)
  const mayLook = workspace.me.privileges.includes('view people')
  const more = Math.min(shownAtOnce, people.length - shown)
  return (
    <>
      <ul aria-label="People with access">
        {people.slice(0, shown).map(person => (
          <li
            key={person.id}
            className="grid grid-cols-[minmax(0,1fr)_7.5rem_auto] items-center gap-2 border-t border-base-300 py-1.5"
          >
            <span className="truncate" title={person.name}>
              {mayLook ? (
                <Link className="hover:underline" to={`/at/${slug}/people/${person.id}`}>
                  {person.name}
                </Link>
              ) : (
                person.name
              )}
              <span className="quiet text-sm">
                {person.kind === 'guest' && ' · guest'}
                {person.status === 'invited' && ' · invited'}
              </span>
            </span>
            <Level actions={person.actions} />
            <WhyOf name={person.name} about={{ person: person.id }} onWhy={onWhy} />
          </li>
        ))}
      </ul>
      {more > 0 ? (
        <button type="button" className="btn-inline mt-1.5 text-sm" onClick={() => setShown(shown + more)}>
          Show {more} more of {numberWords(peopleCount)}
        </button>
      ) : (
        peopleCount > people.length && (
          <Link
            className="link mt-1.5 inline-block text-sm"
            to={`/at/${slug}/oversight/check?ask=who&place=${node.id}`}
          >
            Show all {numberWords(peopleCount)}
          </Link>
        )
      )}
    </>
  )
}
