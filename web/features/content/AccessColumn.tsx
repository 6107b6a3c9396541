import { useState } from 'react'
import { Link } from 'react-router'
import type { AccessView, NodeView } from '#contract/views.ts'
import { useAccessQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { foldAccess } from '../../store/view.ts'
import { Level } from '../../ui/Gauge.tsx'
import { countWords } from './count-words.ts'
import { GivenHere } from './GivenHere.tsx'
import { Inheritance } from './Inheritance.tsx'
import { LeavePlace } from './LeavePlace.tsx'
import { Limits } from './Limits.tsx'
import { Share } from './Share.tsx'
import { TwoSentences } from './Welcome.tsx'
import { Why, type WhyAbout } from './Why.tsx'
import { EverybodyHere } from './EverybodyHere.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'

/** Who has access at the open place, as far as the reader may know, and all that can be done about it. */
export function AccessColumn({ node }: { readonly node: NodeView }) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const isFolded = useAppSelector(state => state.view.accessFolded)
  const { data: access } = useAccessQuery({ slug, id: node.id })
  const [about, setAbout] = useState<WhyAbout>()
  if (isFolded)
    return (
      <aside aria-label="Access" className="border-l border-base-300 py-3 text-center">
        <button
          type="button"
          className="act [writing-mode:vertical-rl]"
          onClick={() => dispatch(foldAccess(false))}
        >
          Access
        </button>
      </aside>
    )
  return (
    <aside aria-label="Access" className="min-h-0 overflow-y-auto border-l border-base-300 px-4 py-3">
      {access !== undefined && about !== undefined ? (
        <Why about={about} access={access} node={node} onAbout={setAbout} />
      ) : (
        <>
          <div className="mb-1 flex items-baseline justify-between">
            <h2 className="text-lg font-bold">Access</h2>
            <button
              type="button"
              className="quiet cursor-pointer text-sm hover:underline"
              onClick={() => dispatch(foldAccess(true))}
            >
              fold away
            </button>
          </div>
          {access !== undefined && <Known access={access} node={node} onWhy={setAbout} />}
        </>
      )}
    </aside>
  )
}

interface KnownProps<View = AccessView> {
  readonly access: View
  readonly node: NodeView
  readonly onWhy: (about: WhyAbout) => void
}

function Known({ access, node, onWhy }: KnownProps) {
  switch (access.detail) {
    case 'all':
      return <All access={access} node={node} onWhy={onWhy} />
    case 'names':
      return <Names access={access} node={node} onWhy={onWhy} />
    case 'own':
      return <Own access={access} node={node} onWhy={onWhy} />
  }
}

const views = ['What is given', 'Each person'] as const

function All({ access, node, onWhy }: KnownProps<Extract<AccessView, { detail: 'all' }>>) {
  const { slug } = useHere()
  const [view, setView] = useState<(typeof views)[number]>('What is given')
  const here = access.grants.filter(grant => grant.isHere).length
  return (
    <>
      <p className="mb-3">
        <strong>{access.people.length === 1 ? '1 person' : `${access.people.length} people`}</strong> can open
        this; {here === 0 ? 'nothing is set here' : `${here} set here`}, {access.grants.length - here} from
        above.
      </p>
      <Share node={node} />
      <div className="mt-4 mb-1">
        <FilterWords label="Show" words={views} chosen={view} onChoose={setView} />
      </div>
      {view === 'What is given' ? (
        <GivenHere grants={access.grants} node={node} onWhy={onWhy} />
      ) : (
        <EverybodyHere people={access.people} onWhy={onWhy} />
      )}
      <Inheritance access={access} node={node} />
      <Limits access={access} node={node} />
      <p className="mt-4 border-t border-base-content pt-2">
        <Link className="act text-sm" to={`/at/${slug}/oversight/history?place=${node.id}`}>
          What was done here and below
        </Link>
      </p>
      <div className="mt-4">
        <TwoSentences />
      </div>
    </>
  )
}

function Names({ access, node, onWhy }: KnownProps<Extract<AccessView, { detail: 'names' }>>) {
  return (
    <>
      <Mine actions={access.mine} onWhy={onWhy} />
      <h3 className="label-line mt-4">Who else has access</h3>
      <ul>
        {access.names.map(each => (
          <li key={each.principal} className="flex justify-between border-t border-base-300 py-1.5">
            {each.name}
            <span className="quiet text-sm">{countWords(each.kind, each.people)}</span>
          </li>
        ))}
      </ul>
      <LeavePlace node={node} />
    </>
  )
}

function Own({ access, node, onWhy }: KnownProps<Extract<AccessView, { detail: 'own' }>>) {
  return (
    <>
      <Mine actions={access.mine} onWhy={onWhy} />
      <p className="mt-4">
        {access.readers === 1 ? 'You alone can read this.' : `${access.readers} people can read this.`}
        {access.contact !== null && ` Turn to ${access.contact} with questions.`}
      </p>
      <LeavePlace node={node} />
    </>
  )
}

function Mine({ actions, onWhy }: { readonly actions: number; readonly onWhy: (about: WhyAbout) => void }) {
  const { workspace } = useHere()
  return (
    <p className="flex items-center justify-between border-y border-base-300 py-2">
      <span className="flex items-center gap-3">
        <strong>You</strong> <Level actions={actions} />
      </span>
      <button type="button" className="act text-sm" onClick={() => onWhy({ person: workspace.me.id })}>
        Why?
      </button>
    </p>
  )
}
