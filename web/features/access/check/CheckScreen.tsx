import { useSearchParams } from 'react-router'
import { type Action, allActions } from '#core/levels/action.ts'
import { usePeopleNamesQuery } from '../../../api/api.ts'
import { listed } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Combobox } from '../../../ui/Combobox.tsx'
import { Copy } from '../../../ui/Copy.tsx'
import { FilterWords } from '../../../ui/FilterWords.tsx'
import { OversightHead } from '../../../ui/OversightHead.tsx'
import { TwoSentences } from '../../../ui/TwoSentences.tsx'
import { AskedPlace } from './AskedPlace.tsx'
import { doing } from '../doing.ts'
import { Outlining } from './Outlining.tsx'
import { WhatAnswer } from './WhatAnswer.tsx'
import { WhoAnswer } from './WhoAnswer.tsx'
import { WhyAnswer } from './WhyAnswer.tsx'

const questions = {
  who: 'Who has access to a place',
  what: 'What a person has access to',
  why: 'Why a person has access',
  whynot: 'Why a person has no access',
} as const
type Question = keyof typeof questions
const asks = Object.keys(questions) as Question[]

/** The four questions, each answered with where it comes from; a question is its address, so it can be passed on. */
export function CheckScreen() {
  const { workspace } = useHere()
  const [params, setParams] = useSearchParams()
  const ask = asks.find(each => each === params.get('ask')) ?? 'who'
  const put = (changed: Readonly<Record<string, string>>) => {
    const next = { ...Object.fromEntries(params), ...changed }
    setParams(Object.fromEntries(Object.entries(next).filter(([, value]) => value !== '')))
  }
  const action = allActions.find(each => each === params.get('action')) ?? 'see'
  // “me” is whoever follows the address.
  const personAsked = params.get('person')
  const person = personAsked === 'me' ? workspace.me.id : personAsked
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
      <OversightHead me={workspace.me} />
      <FilterWords
        label="Question"
        words={asks.map(each => questions[each])}
        chosen={questions[ask]}
        onChoose={word => put({ ask: asks.find(each => questions[each] === word) ?? 'who' })}
      />
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[21rem_minmax(0,1fr)]">
        <div className="grid content-start gap-4">
          {ask !== 'what' && <AskedPlace id={params.get('place')} onPlace={place => put({ place })} />}
          {ask !== 'who' && <AskedPerson id={person} onPerson={person => put({ person })} />}
          {(ask === 'who' || ask === 'whynot') && (
            <Choice
              label={ask === 'who' ? 'Who can' : 'Why can this person not'}
              value={action}
              options={allActions.map(each => ({ value: each, name: doing[each] }))}
              onValue={chosen => put({ action: chosen })}
            />
          )}
          <Outlining />
          <TwoSentences />
        </div>
        <Answer ask={ask} place={params.get('place')} person={person} action={action} />
      </div>
    </main>
  )
}

interface AnswerProps {
  readonly ask: Question
  readonly place: string | null
  readonly person: string | null
  readonly action: Action
}

/** What has to be chosen before a question can be answered. */
function missingFor({ ask, place, person }: AnswerProps): string | undefined {
  const needs = [
    ...(ask !== 'what' && place === null ? ['a place'] : []),
    ...(ask !== 'who' && person === null ? ['a person'] : []),
  ]
  return needs.length === 0 ? undefined : `Choose ${listed(needs)}.`
}

function Answer(props: AnswerProps) {
  const missing = missingFor(props)
  if (missing !== undefined) return <p className="quiet">{missing}</p>
  return (
    <section aria-label="Answer">
      <AnswerOf {...props} />
      <div className="mt-6 max-w-xl">
        <p className="label-line">
          Share this question. People who may see the answer find it at this address.
        </p>
        <Copy label="Address of this question" text={location.href} />
      </div>
    </section>
  )
}

function AnswerOf({ ask, place, person, action }: AnswerProps) {
  switch (ask) {
    case 'who':
      return <WhoAnswer key={place} place={place ?? ''} action={action} />
    case 'what':
      return <WhatAnswer key={person} person={person ?? ''} />
    case 'why':
    case 'whynot':
      return (
        <WhyAnswer
          key={`${place} ${person} ${ask}`}
          place={place ?? ''}
          person={person ?? ''}
          action={ask === 'whynot' ? action : undefined}
        />
      )
  }
}

interface AskedPersonProps {
  readonly id: string | null
  readonly onPerson: (id: string) => void
}

function AskedPerson({ id, onPerson }: AskedPersonProps) {
  const { slug, workspace } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const me = { id: workspace.me.id, name: `${workspace.me.name} (you)`, mail: '' }
  const all = [me, ...people.filter(each => each.id !== me.id)]
  const chosen = all.find(each => each.id === id)
  return (
    <div>
      <p className="label-line">Person</p>
      {chosen !== undefined && <p className="mb-1 font-semibold">{chosen.name}</p>}
      <Combobox
        label="Person"
        placeholder={chosen === undefined ? 'Name of a person' : 'Another person'}
        options={all.map(each => ({ value: each.id, name: each.name, note: each.mail }))}
        onChoose={({ value }) => onPerson(value)}
      />
    </div>
  )
}
