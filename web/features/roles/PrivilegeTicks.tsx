import { useState } from 'react'
import {
  needsOf,
  type Privilege,
  type PrivilegeGroup,
  privilegeGroups,
  privileges,
  withoutPrivilege,
} from '#core/levels/privilege.ts'
import { privilegeRisks, privilegeWords } from '#core/words/privilege.ts'
import { listed } from '#core/words/english.ts'
import { NoEffectYet } from '../../ui/NoEffectYet.tsx'
import { Risk } from '../../ui/Sentences.tsx'
import { Tick } from '../../ui/Tick.tsx'

interface Props {
  readonly held: readonly Privilege[]
  /** Whether the one who chooses may put a privilege into this role. */
  readonly mayGive: (privilege: Privilege) => boolean
  readonly onHeld: (held: readonly Privilege[], confirmation: string) => void
}

/** Privileges by group, found by search; what one needs comes along, and what needs one goes with it. */
export function PrivilegeTicks({ held, mayGive, onHeld }: Props) {
  const [find, setFind] = useState('')
  const wanted = find.trim().toLowerCase()
  const fits = (each: Privilege) => `${each} ${privilegeWords[each]}`.toLowerCase().includes(wanted)
  const groups = Object.entries(privilegeGroups) as [PrivilegeGroup, readonly Privilege[]][]
  const add = (names: readonly Privilege[]) => {
    const next = [...privileges(...held, ...names)]
    const along = next.filter(each => !held.includes(each) && !names.includes(each))
    onHeld(next, along.length === 0 ? '' : `Also added, because it is needed: ${wordsOf(along)}.`)
  }
  const drop = (names: readonly Privilege[]) => {
    const next = [
      ...names.reduce<readonly Privilege[]>((left, each) => [...withoutPrivilege(left, each)], held),
    ]
    const along = held.filter(each => !next.includes(each) && !names.includes(each))
    onHeld(next, along.length === 0 ? '' : `Also removed, because it needs that: ${wordsOf(along)}.`)
  }
  return (
    <fieldset>
      <legend className="label-line">Privileges</legend>
      <div className="flex items-center gap-3">
        <input
          className="field"
          aria-label="Find privileges"
          placeholder="Find privileges"
          value={find}
          onChange={event => setFind(event.target.value)}
        />
        <button type="button" className="btn-inline shrink-0 text-sm" onClick={() => onHeld([], '')}>
          Clear all
        </button>
      </div>
      {groups.map(([group, names]) => (
        <Group
          key={group}
          group={group}
          names={names.filter(each => each !== 'own' && fits(each))}
          {...{ held, mayGive, add, drop }}
        />
      ))}
    </fieldset>
  )
}

const wordsOf = (names: readonly Privilege[]) => listed(names.map(each => privilegeWords[each]))

interface GroupProps extends Pick<Props, 'held' | 'mayGive'> {
  readonly group: PrivilegeGroup
  readonly names: readonly Privilege[]
  readonly add: (names: readonly Privilege[]) => void
  readonly drop: (names: readonly Privilege[]) => void
}

function Group({ group, names, held, mayGive, add, drop }: GroupProps) {
  const open = names.filter(mayGive)
  const isAll = open.length > 0 && open.every(each => held.includes(each))
  if (names.length === 0) return null
  return (
    <section aria-label={group} className="mt-2 border-t border-base-300 pt-1.5">
      <div className="flex items-baseline justify-between">
        <h4 className="text-sm font-semibold">{group}</h4>
        {open.length > 0 && (
          <button
            type="button"
            className="btn-inline text-sm"
            aria-label={`${isAll ? 'Clear' : 'Select'} group: ${group}`}
            onClick={() => (isAll ? drop(open) : add(open))}
          >
            {isAll ? 'Clear group' : 'Select group'}
          </button>
        )}
      </div>
      {names.map(each => (
        <OneTick key={each} privilege={each} {...{ held, mayGive, add, drop }} />
      ))}
    </section>
  )
}

function OneTick({
  privilege,
  held,
  mayGive,
  add,
  drop,
}: Omit<GroupProps, 'group' | 'names'> & { readonly privilege: Privilege }) {
  const isOn = held.includes(privilege)
  const needs = needsOf(privilege)
  const risk = privilegeRisks[privilege]
  return (
    <div className="py-0.5">
      <Tick
        isOn={isOn}
        isDisabled={!isOn && !mayGive(privilege)}
        onTick={isTicked => (isTicked ? add([privilege]) : drop([privilege]))}
      >
        <span className="inline-block first-letter:uppercase">{privilegeWords[privilege]}</span>
        <NoEffectYet privilege={privilege} />
        {needs.length > 0 && <span className="quiet text-sm"> · needs to {wordsOf(needs)}</span>}
        {!isOn && !mayGive(privilege) && (
          <span className="quiet text-sm"> · you cannot give this to such a high rank</span>
        )}
      </Tick>
      {risk !== undefined && isOn && (
        <div className="pl-7 text-sm">
          <Risk words={risk} />
        </div>
      )}
    </div>
  )
}
