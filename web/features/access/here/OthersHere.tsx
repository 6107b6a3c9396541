import { useState } from 'react'
import { useSearchParams } from 'react-router'
import type { AccessView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { type ActionSet, holds } from '#core/levels/action.ts'
import { levelActions } from '#core/levels/level.ts'
import { peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Level } from '../../../ui/Gauge.tsx'
import type { KnownProps } from './AccessColumn.tsx'
import { AskForAccess } from '../requests/AskForAccess.tsx'
import { countWords } from '../count-words.ts'
import { LeavePlace } from './LeavePlace.tsx'
import type { WhyAbout } from '../why/Why.tsx'

/** What somebody who comments here is told of others: teams and people by name, without where it comes from. */
export function Names({ access, node, onWhy }: KnownProps<Extract<AccessView, { detail: 'names' }>>) {
  return (
    <>
      <Mine node={node} actions={access.mine} onWhy={onWhy} />
      <h3 className="label-line mt-4">Who else has access</h3>
      <ul>
        {access.names.map(each => (
          <li key={each.principal} className="flex justify-between border-t border-base-300 py-1.5">
            {each.name}
            <span className="quiet text-sm">{countWords(each.kind, each.people)}</span>
          </li>
        ))}
      </ul>
      <LeavePlace node={node} />
    </>
  )
}

/** What everybody else is told: how many can read it, and whom to turn to. */
export function Own({ access, node, onWhy }: KnownProps<Extract<AccessView, { detail: 'own' }>>) {
  return (
    <>
      <Mine node={node} actions={access.mine} onWhy={onWhy} />
      <p className="mt-4">
        {access.readers === 1 ? 'Only you can read this.' : `${peopleWords(access.readers)} can read this.`}
        {access.contact !== null && ` If you have questions, ask ${access.contact}.`}
      </p>
      <LeavePlace node={node} />
    </>
  )
}

interface MineProps {
  readonly node: NodeView
  readonly actions: number
  readonly onWhy: (about: WhyAbout) => void
}

function Mine({ node, actions, onWhy }: MineProps) {
  const { workspace } = useHere()
  const [params] = useSearchParams()
  const [isAsking, setAsking] = useState(params.has('ask'))
  const hasMore = !holds(actions as ActionSet, levelActions('Steward'))
  return (
    <>
      <p className="flex items-center justify-between border-y border-base-300 py-2">
        <span className="flex items-center gap-3">
          <strong>You</strong> <Level actions={actions} />
        </span>
        <button
          type="button"
          className="btn-inline text-sm"
          onClick={() => onWhy({ person: workspace.me.id })}
        >
          Why?
        </button>
      </p>
      {hasMore && !isAsking && (
        <button type="button" className="btn-inline mt-2 text-sm" onClick={() => setAsking(true)}>
          Request more access
        </button>
      )}
      {isAsking && <AskForAccess address={node.id} has={actions} onDone={() => setAsking(false)} />}
    </>
  )
}
