import { useState } from 'react'
import type { CountedPlaceView, CountedSum, CountedView } from '#contract/views/impact.ts'
import { type ActionSet, beyond } from '#core/levels/action.ts'
import {
  counted as countedWords,
  nounFor,
  numberWords,
  peopleWords,
  placesWords,
} from '#core/words/english.ts'
import type { ImpactSum, ImpactSums } from '#core/words/impact.ts'
import { listed } from '#core/words/english.ts'
import { FilterWords } from './FilterWords.tsx'
import { Level } from './Gauge.tsx'

/** An effect in counts, as it is put into one line. */
export const sumsOf = ({ gains, losses, turns }: CountedView): ImpactSums => ({
  gains: sumOf(
    gains,
    turns.filter(({ before, after }) => beyond(after as ActionSet, before as ActionSet).length > 0),
  ),
  losses: sumOf(
    losses,
    turns.filter(({ before, after }) => beyond(before as ActionSet, after as ActionSet).length > 0),
  ),
})

const sumOf = (sum: CountedSum, turns: CountedView['turns']): ImpactSum => ({
  ...sum,
  afters: turns.map(each => each.after as ActionSet),
})

const views = ['by level', 'by person', 'by place'] as const

/** An effect on very many people and places: what becomes what, and for whom and where most of it does. */
export function Counted({ counted }: { readonly counted: CountedView }) {
  const [view, setView] = useState<(typeof views)[number]>('by level')
  // To who may know no more than how much it is, nothing else is told.
  if (counted.turns.length === 0) return null
  return (
    <div className="mt-1 text-sm">
      <FilterWords label="Order" words={views} chosen={view} onChoose={setView} />
      {/* Focusable, so that the keyboard can scroll it. */}
      <ul tabIndex={0} aria-label="What changes most" className="mt-1 max-h-72 overflow-y-auto">
        {view === 'by level' && <ByLevel turns={counted.turns} />}
        {view === 'by person' && <ByPerson people={counted.mostPeople} of={peopleIn(counted)} />}
        {view === 'by place' && <ByPlace roots={counted.mostPlaces} of={counted.places} />}
      </ul>
      {counted.hasColumns && (
        <p className="quiet mt-1">There are restricted columns too. They are not counted.</p>
      )}
    </div>
  )
}

const peopleIn = ({ gains, losses }: CountedView) => Math.max(gains.people, losses.people)

function ByLevel({ turns }: Pick<CountedView, 'turns'>) {
  const most = Math.max(...turns.map(each => each.times))
  return turns.map(({ before, after, times }) => (
    <li key={`${before} ${after}`} className="border-t border-base-300 py-1.5">
      <span className="flex items-center gap-2">
        <Level actions={before} />
        <span aria-hidden>→</span>
        <span className="sr-only">becomes</span>
        <Level actions={after} />
      </span>
      <Share of={most} count={times} />
      <span className="quiet">{countedWords(times, 'time', 'times')}, once for each person and place</span>
    </li>
  ))
}

function ByPerson({ people, of }: { readonly people: CountedView['mostPeople']; readonly of: number }) {
  const most = Math.max(...people.map(each => Math.max(each.gains, each.losses)))
  return (
    <>
      {people.map(({ person, gains, losses }) => (
        <li key={person.id} className="border-t border-base-300 py-1.5">
          <strong>{person.name}</strong>
          <Share of={most} count={Math.max(gains, losses)} />
          <span className="quiet">{listed([...more(gains), ...less(losses)])}</span>
        </li>
      ))}
      <Rest shown={people.length} of={of} what="people" />
    </>
  )
}

const more = (places: number) => (places === 0 ? [] : [`gains on ${placesWords(places)}`])
const less = (places: number) => (places === 0 ? [] : [`loses on ${placesWords(places)}`])

function ByPlace({ roots, of }: { readonly roots: readonly CountedPlaceView[]; readonly of: number }) {
  const most = Math.max(...roots.map(each => each.gaining + each.losing))
  const shown = roots.reduce((sum, each) => sum + each.places, 0)
  return (
    <>
      {roots.map(({ place, places, gaining, losing, web }) => (
        <li key={place.id} className="border-t border-base-300 py-1.5">
          <strong>{place.name}</strong> <span className="quiet">{place.path}</span>
          <Share of={most} count={gaining + losing} />
          <span className="quiet">
            {[
              ...(places === 1 ? [] : [`and the same on ${placesWords(places - 1)} in it`]),
              ...(gaining === 0 ? [] : [`${peopleWords(gaining)} ${nounFor(gaining, 'gains', 'gain')}`]),
              ...(losing === 0 ? [] : [`${peopleWords(losing)} ${nounFor(losing, 'loses', 'lose')}`]),
              ...(web === 0 ? [] : [web > 0 ? 'published to the web' : 'taken off the web']),
            ].join(', ')}
          </span>
        </li>
      ))}
      <Rest shown={shown} of={of} what="places" />
    </>
  )
}

/** How much of the most it is, as a bar. */
const Share = ({ count, of }: { readonly count: number; readonly of: number }) => (
  <span aria-hidden className="my-1 block h-1.5 bg-base-300">
    <span className="block h-full bg-primary" style={{ width: `${of === 0 ? 0 : (100 * count) / of}%` }} />
  </span>
)

const Rest = ({ shown, of, what }: { readonly shown: number; readonly of: number; readonly what: string }) =>
  of > shown && (
    <li className="quiet border-t border-base-300 py-1.5">
      and {numberWords(of - shown)} more {what} with the same or fewer changes
    </li>
  )
