import { useState } from 'react'
import type { AccessView, LimitView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import type { Principal } from '#core/rules/principal.ts'
import { usePeopleNamesQuery, useTeamsQuery } from '../../../api/api.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { counted, peopleWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Combobox } from '../../../ui/Combobox.tsx'
import { Day, Through } from '../../../ui/dates.tsx'
import { Decision } from '../../../ui/Decision.tsx'
import { Level } from '../../../ui/Gauge.tsx'
import { LimitForm } from './LimitForm.tsx'
import type { WhyAbout } from '../why/Why.tsx'
import { WhyOf } from '../why/WhyOf.tsx'

interface Props {
  readonly access: Extract<AccessView, { detail: 'all' }>
  readonly node: NodeView
  readonly onWhy: (about: WhyAbout) => void
}

/** The caps that count here, set here or above, whom they hold, and the form that sets one. */
export function Limits({ access, node, onWhy }: Props) {
  const [isOpen, setOpen] = useState(false)
  return (
    <section aria-label="Limits" className="mt-4 border-t border-base-content pt-2">
      <div className="flex items-baseline justify-between gap-2">
        <h3 className={access.limits.length === 0 ? 'quiet' : 'font-bold'}>
          {access.limits.length === 0 ? 'No limits' : 'Limits'}
        </h3>
        {!isOpen && (
          <button type="button" className="btn-inline shrink-0 text-sm" onClick={() => setOpen(true)}>
            Add limit …
          </button>
        )}
      </div>
      {isOpen && <NewLimit node={node} onDone={() => setOpen(false)} />}
      <ul>
        {access.limits.map(limit => (
          <Limited key={limit.id} limit={limit} onWhy={onWhy} />
        ))}
      </ul>
    </section>
  )
}

function Limited({ limit, onWhy }: { readonly limit: LimitView } & Pick<Props, 'onWhy'>) {
  const { workspace } = useHere()
  const [isLifting, setLifting] = useState(false)
  const [openedAt] = useState(Date.now)
  return (
    <li className="border-t border-base-300 py-1.5">
      <div className="grid grid-cols-[minmax(0,1fr)_7.5rem_auto] items-start gap-2">
        <span className="min-w-0">
          <span className="block truncate font-semibold">{limit.name}</span>
          <span className="quiet block text-sm">
            {limit.isHere ? `set by ${limit.by}` : `inherited from ${limit.at?.name ?? 'a place above'}`}
            {limit.from !== null && limit.from > limit.since && (
              <>
                {' · starts '}
                <Day at={limit.from} />
              </>
            )}
            {limit.until !== null && (
              <>
                {' · '}
                <Through until={limit.until} timeZone={workspace.timeZone} />
              </>
            )}
          </span>
        </span>
        <Level actions={limit.allows} isLater={limit.from !== null && limit.from > openedAt} />
        {limit.isHere && (
          <button
            type="button"
            className="btn-inline text-sm"
            aria-label={`Remove the limit of ${limit.name}`}
            onClick={() => setLifting(true)}
          >
            Remove
          </button>
        )}
      </div>
      <Held limit={limit} onWhy={onWhy} />
      {isLifting && <Lifting limit={limit} onDone={() => setLifting(false)} />}
    </li>
  )
}

/** Whom a limit takes something from: the first names, and behind them everybody. */
function Held({ limit: { holds, spares }, onWhy }: { readonly limit: LimitView } & Pick<Props, 'onWhy'>) {
  const [isOpen, setOpen] = useState(false)
  const spared = spares === 0 ? '' : ` It does not apply to ${counted(spares, 'steward', 'stewards')}.`
  if (holds.length === 0) return <p className="quiet text-sm">Reduces nobody’s access now.{spared}</p>
  return (
    <div className="text-sm">
      <p>
        <button type="button" className="btn-inline" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          Reduces the access of {holds.length === 1 ? holds[0]?.name : peopleWords(holds.length)}
        </button>
        <span className="quiet">.{spared}</span>
      </p>
      {isOpen && (
        <ul aria-label="People whose access it reduces" className="mt-1 ml-3 border-l border-base-300 pl-3">
          {holds.map(each => (
            <li key={each.id} className="flex justify-between gap-2 py-0.5">
              {each.name}
              <WhyOf name={each.name} about={{ person: each.id }} onWhy={onWhy} />
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}

function Lifting({ limit, onDone }: { readonly limit: LimitView; readonly onDone: () => void }) {
  const edits = [{ kind: 'limit.end', limit: limit.id } as const]
  const decision = useDecision(edits, `The limit of ${limit.name} is removed.`, onDone)
  return <Decision label="Remove limit" onLeave={onDone} {...decision} />
}

interface Whom {
  readonly principal: Principal
  readonly name: string
  readonly note: string
}

const groups: readonly Whom[] = [
  { principal: 'guests', name: 'All guests', note: 'now and in future' },
  { principal: 'everyone', name: 'All members', note: 'everyone except guests' },
  { principal: 'anyone', name: 'Members and guests', note: 'everyone' },
]

function NewLimit({ node, onDone }: { readonly node: NodeView; readonly onDone: () => void }) {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const { data: teams = [] } = useTeamsQuery(slug)
  const [whom, setWhom] = useState<Whom>()
  const all: Whom[] = [
    ...groups,
    ...teams.map(({ id, name }) => ({ principal: `team:${id}` as const, name, note: 'team' })),
    ...people.map(({ id, name, mail }) => ({ principal: `person:${id}` as const, name, note: mail })),
  ]
  return (
    <div className="mt-2 bg-base-200">
      <div className="px-3 pt-3">
        <p className="mb-1 flex justify-between text-sm">
          <span>
            {whom === undefined ? (
              'Who is limited?'
            ) : (
              <>
                Limit for <strong>{whom.name}</strong>
              </>
            )}
          </span>
          {whom !== undefined && (
            <button type="button" className="btn-inline" onClick={() => setWhom(undefined)}>
              Change
            </button>
          )}
        </p>
        {whom === undefined && (
          <Combobox
            label="Person, team or group to limit"
            placeholder="Person, team or all guests"
            options={all.map(({ principal, name, note }) => ({ value: principal, name, note }))}
            onChoose={({ value }) => setWhom(all.find(each => each.principal === value))}
          />
        )}
      </div>
      {whom === undefined ? (
        <p className="flex justify-end p-3">
          <button type="button" className="btn-plain" onClick={onDone}>
            Cancel
          </button>
        </p>
      ) : (
        <LimitForm key={whom.principal} node={node} who={whom.principal} onDone={onDone} />
      )}
    </div>
  )
}
