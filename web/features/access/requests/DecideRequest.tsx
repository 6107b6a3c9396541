import { useState } from 'react'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { AccessWantedView, RequestView } from '#contract/views/requests.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Decision } from '../../../ui/Decision.tsx'
import { FilterWords } from '../../../ui/FilterWords.tsx'
import { type Given, LevelChoice, nameOfGiven } from '../../../ui/LevelChoice.tsx'
import { TextField } from '../../../ui/TextField.tsx'
import { atMostFor } from '../at-most.ts'
import { DayField } from '../../../ui/DayField.tsx'

interface Props {
  readonly request: RequestView<AccessWantedView>
  /** What the reader has there: at most that is theirs to give. */
  readonly held: number
  readonly onDone: () => void
}

const answers = { give: 'Accept', decline: 'Decline' } as const
type Answer = (typeof answers)[keyof typeof answers]

/** Gives what is asked for, or another level, through a day; or declines it. One act, its effect before it. */
export function DecideRequest({ request, held, onDone }: Props) {
  const { workspace } = useHere()
  const [answer, setAnswer] = useState<Answer>(answers.give)
  const [gives, setGives] = useState<Given>(request.wants.actions)
  const [through, setThrough] = useState('')
  const [comment, setComment] = useState('')
  const { id, person, wants } = request
  const isGiven = answer === answers.give
  const level = nameOfGiven(gives, workspace.ownLevels)
  const until = through === '' ? null : endOfDay(through, workspace.timeZone)
  const shared = { request: id, comment: comment.trim() }
  const edit: EditRequest = isGiven
    ? { kind: 'request.accept', ...shared, gives: { of: 'access', gives, until } }
    : { kind: 'request.decline', ...shared }
  const done = isGiven
    ? `${person.name} now has ${level} on ${wants.place.name}.`
    : `The request of ${person.name} is declined.`
  const decision = useDecision([edit], done, onDone)
  return (
    <Decision label={isGiven ? `Give ${level}` : 'Decline request'} onLeave={onDone} {...decision}>
      <FilterWords
        label="Answer"
        words={[answers.give, answers.decline]}
        chosen={answer}
        onChoose={setAnswer}
      />
      {isGiven && (
        <div className="grid grid-cols-2 items-end gap-2">
          <LevelChoice
            label={`Level of ${person.name}`}
            value={gives}
            own={workspace.ownLevels}
            atMost={atMostFor(request.isGuest ? 'guest' : 'member', held)}
            onChange={setGives}
          />
          <DayField isQuiet label="Ends after" value={through} onValue={setThrough} />
        </div>
      )}
      <TextField label={`Message to ${person.name}`} maxLength={1000} value={comment} onValue={setComment} />
    </Decision>
  )
}
