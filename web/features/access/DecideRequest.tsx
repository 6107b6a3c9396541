import { useState } from 'react'
import type { AccessRequestView } from '#contract/access-views.ts'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Decision } from '../../ui/Decision.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'
import { type Given, LevelChoice, nameOfGiven } from '../../ui/LevelChoice.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { atMostFor } from './at-most.ts'
import { DayField } from '../../ui/DayField.tsx'

interface Props {
  readonly request: AccessRequestView
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
  const [gives, setGives] = useState<Given>(request.wants)
  const [through, setThrough] = useState('')
  const [word, setWord] = useState('')
  const { person, place } = request
  const isGiven = answer === answers.give
  const level = nameOfGiven(gives, workspace.ownLevels)
  const edit: EditRequest = {
    kind: 'access.answer',
    request: request.id,
    word: word.trim(),
    gives: isGiven ? { gives, until: through === '' ? null : endOfDay(through, workspace.timeZone) } : null,
  }
  const said = isGiven
    ? `${person.name} now has ${level} on ${place.name}.`
    : `The request of ${person.name} is declined.`
  const decision = useDecision([edit], said, onDone)
  return (
    <Decision act={isGiven ? `Give ${level}` : 'Decline request'} onLeave={onDone} {...decision}>
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
      <TextField label={`Message to ${person.name}`} maxLength={1000} value={word} onValue={setWord} />
    </Decision>
  )
}
