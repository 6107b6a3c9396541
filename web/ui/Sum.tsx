import type { ReactNode } from 'react'
import type { ExplanationView, PartView, StepView } from '#contract/views/explanation.ts'
import { Gauge } from './Gauge.tsx'
import { Day, Through } from './dates.tsx'
import { useLevelName } from './own-levels.ts'

/** The sum behind one person's access at one place: what adds up, what takes away, what is left. */
export function Sum({ sum, timeZone }: { readonly sum: ExplanationView; readonly timeZone: string }) {
  const levelName = useLevelName()
  return (
    <ol className="border-b border-base-300" aria-label={`Why ${sum.person} has this access`}>
      {sum.grants.map((part, index) => (
        <Line key={index} sign="+" actions={part.actions}>
          <Part part={part} timeZone={timeZone} />
        </Line>
      ))}
      {sum.grants.length === 0 && <li className="quiet border-t border-base-300 py-2">No grants.</li>}
      {sum.keptOut.map((part, index) => (
        <Line key={`out ${index}`} sign="·" actions={part.actions} isQuiet>
          <Part part={part} timeZone={timeZone} /> It does not count, because inheritance is broken on{' '}
          {sum.brokenAt?.name ?? 'a place above'}.
        </Line>
      ))}
      {sum.steps.map((step, index) => (
        <Line key={`step ${index}`} sign="−" actions={step.leaves}>
          {stepWords(step, sum, levelName)}
        </Line>
      ))}
      <Line sign="=" actions={sum.result}>
        <strong>{levelName(sum.result)}</strong>
      </Line>
    </ol>
  )
}

interface LineProps {
  readonly sign: string
  readonly actions: number
  readonly isQuiet?: boolean
  readonly children: ReactNode
}

const Line = ({ sign, actions, isQuiet = false, children }: LineProps) => (
  <li className={`flex items-start gap-3 border-t border-base-300 py-2 ${isQuiet ? 'quiet' : ''}`}>
    <span className="w-3 text-center font-bold">{sign}</span>
    <Gauge actions={actions} />
    <span className="min-w-0">{children}</span>
  </li>
)

function Part({ part, timeZone }: { readonly part: PartView; readonly timeZone: string }) {
  const levelName = useLevelName()
  return (
    <>
      <strong>{levelName(part.actions)}</strong>, {throughWords(part)},{' '}
      {part.isHere ? 'on this place' : `inherited from ${part.at?.name ?? 'a place above'}`}
      {part.by !== null && `, set by ${part.by}`}, <Day at={part.since} />
      {part.until !== null && (
        <>
          , <Through until={part.until} timeZone={timeZone} />
        </>
      )}
      .
    </>
  )
}

function throughWords({ through, team }: PartView): string {
  switch (through) {
    case 'name':
      return 'by name'
    case 'everyone':
      return 'for all members'
    case 'team':
      return `from the team ${team ?? ''}`
    case 'leads':
      return `as a lead of ${team ?? ''}`
  }
}

function stepWords(
  { kind, at, leaves }: StepView,
  { status }: ExplanationView,
  levelName: (actions: number) => string,
): string {
  const left = levelName(leaves)
  const place = at?.name ?? 'a place above'
  switch (kind) {
    case 'limit':
      return `A limit on ${place} leaves ${left}.`
    case 'guest ceiling':
      return `Guests can have ${left} at most.`
    case 'draft':
      return 'This is a draft. Only people who can change or share it see it.'
    case 'archive':
      return `${place} is archived. Nothing in it can be changed.`
    case 'bin':
      return `${place} is in the bin.`
    case 'not active':
      return status === 'invited' ? 'Invited. The access counts once they accept.' : 'Not active now.'
  }
}
