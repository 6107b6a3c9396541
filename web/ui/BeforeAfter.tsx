import { useState } from 'react'
import type {
  DifferenceView,
  ImpactAtView,
  PowerDifferenceView,
  PreviewView,
} from '#contract/views/impact.ts'
import type { Problem } from '#contract/views/problem.ts'
import { type ActionSet, beyond } from '#core/levels/action.ts'
import { impactInWords, powersInWords, sumsInWords } from '#core/words/impact.ts'
import { listed, nounFor, peopleWords, placesWords } from '#core/words/english.ts'
import { privilegesListed } from '#core/words/privilege.ts'
import { Counted, sumsOf } from './Counted.tsx'
import { Day } from './dates.tsx'
import { FilterWords } from './FilterWords.tsx'
import { Level } from './Gauge.tsx'
import { ProblemNote } from './ProblemNote.tsx'
import { type Waiting, WorkingOut } from './WorkingOut.tsx'

interface Props {
  readonly preview: PreviewView | undefined
  /** Why it would be refused. */
  readonly problem: Problem | undefined
  readonly waiting?: Waiting | undefined
  /** What was seen first, where it would do something else by now. */
  readonly earlier?: PreviewView | undefined
}

/** What a change does before it is made: one line, and behind it everybody and every place. */
export function BeforeAfter({ preview, problem, earlier, waiting }: Props) {
  if (problem !== undefined) return <ProblemNote problem={problem} />
  if (preview === undefined) return <WorkingOut waiting={waiting} />
  return (
    <section aria-label="Before and after" className="border-base-content not-first:border-t not-first:pt-2">
      {earlier !== undefined && (
        <div className="mb-2 border-l-4 border-base-300 pl-3">
          <p className="text-sm font-semibold">What you saw before</p>
          <Impacts preview={earlier} />
        </div>
      )}
      {earlier !== undefined && <p className="text-sm font-semibold">What it would do now</p>}
      <Impacts preview={preview} />
      <LeftOut leftOut={preview.leftOut} />
    </section>
  )
}

const Impacts = ({ preview: { impact, isWhole } }: { readonly preview: PreviewView }) =>
  impact.map((impactAt, index) => (
    <ImpactAt key={impactAt.at} impactAt={impactAt} isNow={index === 0} isWhole={isWhole} />
  ))

/** What an undo does not take back. */
const LeftOut = ({ leftOut }: Pick<PreviewView, 'leftOut'>) =>
  leftOut.length > 0 && (
    <div className="border-l-4 border-warning pl-3 text-sm">
      <p className="font-semibold">Not undone</p>
      <ul>
        {leftOut.map(each => (
          <li key={each}>{each}</li>
        ))}
      </ul>
    </div>
  )

const views = ['by person', 'by place'] as const

interface ImpactAtProps {
  readonly impactAt: ImpactAtView
  readonly isNow: boolean
  readonly isWhole: boolean
}

function ImpactAt({ impactAt, isNow, isWhole }: ImpactAtProps) {
  const [isOpen, setOpen] = useState(false)
  const { differences, counted } = impactAt
  return (
    <div className="mb-2">
      <p className="text-sm">
        {!isNow && (
          <strong>
            From the end of <Day at={impactAt.at - 1} />:{' '}
          </strong>
        )}
        {sentenceOf({ impactAt, isNow, isWhole })}{' '}
        {(differences.length > 0 || counted !== null) && (
          <button
            type="button"
            className="btn-inline"
            aria-expanded={isOpen}
            onClick={() => setOpen(!isOpen)}
          >
            {isOpen ? 'Hide details' : 'Show details'}
          </button>
        )}
      </p>
      {isOpen &&
        (counted === null ? <DifferenceList differences={differences} /> : <Counted counted={counted} />)}
      <Columns columns={impactAt.columns} />
      <Powers powers={impactAt.powers} />
    </div>
  )
}

/** What people may do in the workspace from then on: one line, and behind it everybody. */
function Powers({ powers }: Pick<ImpactAtView, 'powers'>) {
  const [isOpen, setOpen] = useState(false)
  const differences = powers.flatMap(({ person, parts }) =>
    parts.map(part => ({ person: person.id, ...part })),
  )
  const moved = powers.filter(each => each.rankBefore !== each.rankAfter)
  if (powers.length === 0) return null
  return (
    <div className="mt-1 text-sm">
      <p>
        {powersInWords(differences)} {ranksInWords(moved)}{' '}
        <button type="button" className="btn-inline" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {isOpen ? 'Hide people' : 'Show people'}
        </button>
      </p>
      {isOpen && (
        <ul tabIndex={0} aria-label="What people may do" className="mt-1 max-h-72 overflow-y-auto">
          {powers.map(each => (
            <PowersOfOne key={each.person.id} power={each} />
          ))}
        </ul>
      )}
    </div>
  )
}

function ranksInWords(moved: readonly PowerDifferenceView[]): string {
  const count = (of: number, where: string) =>
    of === 0 ? [] : [`${peopleWords(of)} ${nounFor(of, 'ranks', 'rank')} ${where}.`]
  const up = moved.filter(each => each.rankAfter > each.rankBefore).length
  const parts = [...count(up, 'higher'), ...count(moved.length - up, 'lower')]
  return parts.join(' ')
}

const PowersOfOne = ({
  power: { person, parts, rankBefore, rankAfter },
}: {
  readonly power: PowerDifferenceView
}) => (
  <li className="border-t border-base-300 py-1.5">
    <strong>{person.name}</strong>
    {rankBefore !== rankAfter && (
      <span className="quiet">
        {' '}
        rank {rankBefore} → {rankAfter}
      </span>
    )}
    {parts.map(({ over, gains, loses }) => (
      <div key={over ?? ''}>
        {gains.length > 0 && (
          <p>
            May now {privilegesListed(gains, 40)}
            {overWords(over)}
          </p>
        )}
        {loses.length > 0 && (
          <p>
            May no longer {privilegesListed(loses, 40)}
            {overWords(over)}
          </p>
        )}
      </div>
    ))}
  </li>
)

const overWords = (over: string | null) => (over === null ? '' : ` over ${over}`)

const columnWords = { none: 'does not see', see: 'sees', edit: 'edits' } as const

/** Restricted columns: who sees or edits them from then on. */
const Columns = ({ columns }: Pick<ImpactAtView, 'columns'>) =>
  columns.length > 0 && (
    <ul className="mt-1 text-sm">
      {columns.map(({ person, column, place, before, after }) => (
        <li key={`${person.id} ${column.id} ${place.id}`}>
          <strong>{person.name}</strong> {columnWords[after]} the column {column.name} of {place.name}
          <span className="quiet"> (before: {columnWords[before]} it)</span>
        </li>
      ))}
    </ul>
  )

/** Everybody and every place, in either order. */
function DifferenceList({ differences }: { readonly differences: readonly DifferenceView[] }) {
  const [view, setView] = useState<(typeof views)[number]>('by person')
  return (
    <div className="mt-1 text-sm">
      <FilterWords label="Order" words={views} chosen={view} onChoose={setView} />
      <Everything differences={differences} isByPerson={view === 'by person'} />
    </div>
  )
}

/** What something did: the same one line and the same list, looked back at. */
export const Differences = ({ differences, counted }: Pick<ImpactAtView, 'differences' | 'counted'>) => (
  <>
    <p className="mb-1 text-sm">{impactLine({ differences, counted }, false)}</p>
    {counted !== null && <Counted counted={counted} />}
    {differences.length > 0 && <DifferenceList differences={differences} />}
  </>
)

/** What differs, in one line. */
export const impactLine = (
  { differences, counted }: Pick<ImpactAtView, 'differences' | 'counted'>,
  isWhole: boolean,
): string =>
  counted === null ? impactInWords(toldOf(differences), isWhole) : sumsInWords(sumsOf(counted), isWhole)

/** How many people lose something at once. */
export function losersIn(preview: PreviewView | undefined): number {
  const [now] = preview?.impact ?? []
  if (now === undefined) return 0
  if (now.counted !== null) return now.counted.losses.people
  const losing = now.differences.filter(
    ({ before, after }) => beyond(before as ActionSet, after as ActionSet).length > 0,
  )
  return new Set(losing.map(each => each.person.id)).size
}

const toldOf = (differences: readonly DifferenceView[]) =>
  differences.map(({ person, place, places, before, after }) => ({
    person: person.id,
    place: place.id,
    places,
    before: before as ActionSet,
    after: after as ActionSet,
  }))

function sentenceOf({ impactAt, isNow, isWhole }: ImpactAtProps): string {
  const { differences, counted, hiddenPlaces, powers } = impactAt
  const isNothing = differences.length === 0 && counted === null
  if (isNothing && hiddenPlaces === 0 && isWhole && powers.length > 0)
    return 'Nobody’s access to places changes.'
  const hidden = `${placesWords(hiddenPlaces)} that you cannot see`
  if (!isNothing)
    return impactLine(impactAt, isWhole) + (hiddenPlaces > 0 ? ` There are more changes on ${hidden}.` : '')
  if (hiddenPlaces > 0) return `Nothing changes on the places that you see. There are changes on ${hidden}.`
  return isNow ? impactInWords([], isWhole) : 'Nothing differs any more.'
}

interface EverythingProps {
  readonly differences: readonly DifferenceView[]
  readonly isByPerson: boolean
}

function Everything({ differences, isByPerson }: EverythingProps) {
  const groups = grouped(differences, each => (isByPerson ? each.person.id : each.place.id))
  return (
    // Focusable, so that the keyboard can scroll it.
    <ul tabIndex={0} aria-label="Everything that changes" className="mt-1 max-h-72 overflow-y-auto">
      {groups.map(group => (
        <li key={`${group[0].person.id} ${group[0].place.id}`} className="border-t border-base-300 py-1.5">
          <strong>{isByPerson ? group[0].person.name : group[0].place.name}</strong>
          {!isByPerson && <span className="quiet"> {group[0].place.path}</span>}
          {grouped(group, each => `${each.before} ${each.after}`).map(alike => (
            <div key={`${alike[0].before} ${alike[0].after}`} className="mt-1">
              <span className="flex items-center gap-2">
                <Level actions={alike[0].before} />
                <span aria-hidden>→</span>
                <span className="sr-only">becomes</span>
                <Level actions={alike[0].after} />
              </span>
              <span className="block">
                {isByPerson ? placesListed(alike) : listed(alike.map(each => each.person.name))}
              </span>
            </div>
          ))}
        </li>
      ))}
    </ul>
  )
}

type Group = readonly [DifferenceView, ...DifferenceView[]]

function grouped(differences: readonly DifferenceView[], by: (each: DifferenceView) => string): Group[] {
  const groups = new Map<string, [DifferenceView, ...DifferenceView[]]>()
  for (const each of differences) {
    const group = groups.get(by(each))
    if (group === undefined) groups.set(by(each), [each])
    else group.push(each)
  }
  return [...groups.values()]
}

/** Names of places, each with how many alike lie in it; where two are called alike, with what each stands in. */
function placesListed(differences: readonly DifferenceView[]): string {
  const within = countWithin(differences.map(({ place, places }) => ({ way: wayTo(place), places })))
  const roots = differences.filter(({ place }) => within.has(wayTo(place)))
  const names = roots.map(({ place }) => place.name)
  return roots
    .map(({ place }) => {
      const { name, path } = place
      const isAlone = names.filter(each => each === name).length === 1
      const called = isAlone || path === '' ? name : `${name} (${path.split(' › ').at(-1)})`
      const count = within.get(wayTo(place)) ?? 0
      return count === 0 ? called : `${called} with ${placesWords(count)} in it`
    })
    .join(', ')
}

const wayTo = ({ path, name }: DifferenceView['place']) => (path === '' ? name : `${path} › ${name}`)

/** The topmost of some ways down the tree, each with how many places lie in it that the others speak of, or it does. */
function countWithin(
  ways: readonly { readonly way: string; readonly places: number }[],
): Map<string, number> {
  const all = new Set(ways.map(each => each.way))
  const found = new Map<string, number>()
  for (const { way, places } of ways) {
    const parts = way.split(' › ')
    const above = parts.map((_, index) => parts.slice(0, index + 1).join(' › '))
    const top = above.find(each => all.has(each)) ?? way
    found.set(top, (found.get(top) ?? 0) + (top === way ? places - 1 : places))
  }
  return found
}
