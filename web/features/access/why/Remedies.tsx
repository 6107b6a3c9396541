import { useState } from 'react'
import type { ExplanationView, RemedyView } from '#contract/views/explanation.ts'
import { type Action, type ActionSet, allActions, has } from '#core/levels/action.ts'
import { useWhyNotQuery } from '../../../api/api.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { listed } from '#core/words/english.ts'
import { doing } from '../doing.ts'
import { Decision } from '../../../ui/Decision.tsx'

interface Props {
  readonly person: string
  readonly sum: ExplanationView
  /** The id of the place. */
  readonly place: string
  /** Asked for from the start. */
  readonly first?: Action | undefined
}

/** For what somebody may not do here: the smallest changes that would let them, each ready to be made. */
export function Remedies({ person, sum, place, first }: Props) {
  const lacking = allActions.filter(action => !has(sum.result as ActionSet, action))
  const [chosen, setAction] = useState(first)
  const action = lacking.find(each => each === chosen)
  if (lacking.length === 0) return null
  return (
    <section aria-label="How to allow it" className="mt-4 border-t border-base-content pt-2">
      <label className="grid gap-1">
        <span>How could {sum.person}</span>
        <select
          className="choice"
          value={action ?? ''}
          onChange={event => setAction(lacking.find(each => each === event.target.value))}
        >
          <option value="">…</option>
          {lacking.map(each => (
            <option key={each} value={each}>
              {doing[each]}
            </option>
          ))}
        </select>
      </label>
      {action !== undefined && <Found key={action} person={person} place={place} action={action} />}
    </section>
  )
}

interface FoundProps {
  readonly person: string
  readonly place: string
  readonly action: Action
}

function Found({ person, place, action }: FoundProps) {
  const { slug } = useHere()
  const { data, isFetching, isError } = useWhyNotQuery({ slug, id: place, person, action })
  const [chosen, setChosen] = useState<number>()
  if (isError) return <p className="quiet mt-2 text-sm">Only stewards of this place see this.</p>
  if (data === undefined) return <p className="quiet mt-2 text-sm">Searching for the smallest change …</p>
  return (
    <>
      {data.remedies.length === 0 && !isFetching && (
        <p className="mt-2">
          {data.may
            ? 'This is allowed now.'
            : 'No change of three steps or fewer that you know of would allow it.'}
        </p>
      )}
      <ol className="mt-2">
        {data.remedies.map((remedy, index) => (
          <li key={remedy.words.join()} className="border-t border-base-300 py-1.5">
            <RemedyLine remedy={remedy} onChoose={() => setChosen(index)} />
            {chosen === index && <Deciding remedy={remedy} onDone={() => setChosen(undefined)} />}
          </li>
        ))}
      </ol>
      {!data.isComplete && <p className="quiet text-sm">There may be more. The search was stopped.</p>}
    </>
  )
}

function RemedyLine({ remedy, onChoose }: { readonly remedy: RemedyView; readonly onChoose: () => void }) {
  const { words, mayI, others } = remedy
  return (
    <>
      <ul>
        {words.map(each => (
          <li key={each}>{each}</li>
        ))}
      </ul>
      <p className="flex justify-between gap-2 text-sm">
        <span className="quiet">
          {others.length > 0 && `Who ${mayI ? 'else ' : ''}can do this: ${namesOf(others)}`}
          {others.length === 0 && !mayI && 'Nobody that you know can do this.'}
        </span>
        {mayI && (
          <button
            type="button"
            className="btn-inline shrink-0"
            aria-label={`Do this: ${words.join(', ')}`}
            onClick={onChoose}
          >
            Do this
          </button>
        )}
      </p>
    </>
  )
}

const namesOf = (people: RemedyView['others']): string =>
  listed(
    people.map(each => each.name),
    3,
  )

function Deciding({ remedy, onDone }: { readonly remedy: RemedyView; readonly onDone: () => void }) {
  const decision = useDecision(remedy.edits, 'Done.', onDone)
  return <Decision label="Apply" onLeave={onDone} {...decision} />
}
