import { useState } from 'react'
import { Link } from 'react-router'
import type { GrantView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { useHere } from '../../../api/use-here.ts'
import { FilterWords } from '../../../ui/FilterWords.tsx'
import type { Entry } from './entries.ts'
import { GrantEditor } from './GrantEditor.tsx'
import { LimitForm } from './LimitForm.tsx'
import { ShareForm } from './ShareForm.tsx'

interface Props {
  readonly entry: Entry
  readonly node: NodeView
  readonly onDone: () => void
}

const acts = { change: 'Change or end', more: 'Give more here', limit: 'Limit here' } as const
type Act = (typeof acts)[keyof typeof acts]

/** What can be done about what somebody has at a place: change it where it is set, add to it here, or cap it here. */
export function EntryEditor({ entry, node, onDone }: Props) {
  const here = entry.grants.filter(grant => grant.isHere)
  const words: Act[] = [...(here.length > 0 ? [acts.change] : [acts.more]), acts.limit]
  const [act, setAct] = useState<Act>(words[0] ?? acts.more)
  const above = entry.grants.filter(grant => !grant.isHere)
  return (
    <div className="mt-1">
      <div className="text-sm">
        <FilterWords label={`About ${entry.name}`} words={words} chosen={act} onChoose={setAct} />
      </div>
      {act === acts.change &&
        here.map(grant => <GrantEditor key={grant.id} grant={grant} node={node} onDone={onDone} />)}
      {act === acts.more && <ShareForm node={node} receiver={entry} onDone={onDone} />}
      {act === acts.limit && <LimitForm node={node} who={entry.principal} onDone={onDone} />}
      <Above grants={above} />
    </div>
  )
}

/** What comes from above is changed where it is set. */
function Above({ grants }: { readonly grants: readonly GrantView[] }) {
  const { slug } = useHere()
  const places = grants.flatMap(grant => (grant.at === null || grant.at.id === '' ? [] : [grant.at]))
  if (places.length === 0) return null
  return (
    <p className="mt-1 text-sm">
      Change the inherited grant on{' '}
      {places.map(place => (
        <Link key={place.id} className="link mr-2" to={`/at/${slug}/content/${place.id}`}>
          {place.name}
        </Link>
      ))}
    </p>
  )
}
