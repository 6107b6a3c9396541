import type { Problem } from '#contract/views/problem.ts'
import { type Action, type ActionSet, has } from '#core/levels/action.ts'
import { useExplanationQuery } from '../../../api/api.ts'
import { useHere } from '../../../api/use-here.ts'
import { useLevelName } from '../../../ui/own-levels.ts'
import { Sum } from '../../../ui/Sum.tsx'
import { Way } from '../../../ui/Way.tsx'
import { doing } from '../doing.ts'
import { NotTold } from './NotTold.tsx'
import { Remedies } from '../why/Remedies.tsx'

interface Props {
  readonly place: string
  readonly person: string
  /** What they cannot do, where that is the question. */
  readonly action: Action | undefined
}

/** The sum behind what somebody may do at a place, the way that it takes, and what it would take for more. */
export function WhyAnswer({ place, person, action }: Props) {
  const { slug, workspace } = useHere()
  const levelName = useLevelName()
  const { currentData: sum, error } = useExplanationQuery({ slug, id: place, person })
  if (error !== undefined) return <NotTold problem={error as Problem} />
  if (sum === undefined) return <p className="quiet">Loading …</p>
  const may = action === undefined || has(sum.result as ActionSet, action)
  return (
    <>
      <p className="mb-3">
        <strong>{sum.person}</strong> has <strong>{levelName(sum.result)}</strong> on{' '}
        <strong>{sum.place}</strong>
        {action !== undefined && `, and ${may ? 'can' : 'cannot'} ${doing[action]}`}.
      </p>
      <div className="grid max-w-4xl gap-x-10 gap-y-4 md:grid-cols-2">
        <div>
          <h2 className="label-line">From the workspace down</h2>
          <Way way={sum.way} label={`From the workspace to ${sum.place}`} />
        </div>
        <div>
          <h2 className="label-line">How it adds up</h2>
          <Sum sum={sum} timeZone={workspace.timeZone} />
          <Remedies
            key={action ?? ''}
            person={person}
            sum={sum}
            place={place}
            first={may ? undefined : action}
          />
        </div>
      </div>
    </>
  )
}
