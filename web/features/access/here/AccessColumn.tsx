import { useState } from 'react'
import { Link } from 'react-router'
import type { AccessView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { useAccessQuery } from '../../../api/api.ts'
import { useHere } from '../../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../../store/store.ts'
import { foldAccess } from '../../../store/view.ts'
import { FilterWords } from '../../../ui/FilterWords.tsx'
import { TwoSentences } from '../../../ui/TwoSentences.tsx'
import { CloseNow } from './CloseNow.tsx'
import { Entries } from './Entries.tsx'
import { EverybodyHere } from './EverybodyHere.tsx'
import { Inheritance } from './Inheritance.tsx'
import { Limits } from './Limits.tsx'
import { Names, Own } from './OthersHere.tsx'
import { RequestsHere } from './RequestsHere.tsx'
import { Several } from './Several.tsx'
import { Share } from './Share.tsx'
import { StateHere } from './StateHere.tsx'
import { TakeOver } from './TakeOver.tsx'
import { Watch } from './Watch.tsx'
import { Why, type WhyAbout } from '../why/Why.tsx'

/** Who has access at the open place, or at several that are picked, as far as the reader may know, and all that can be done about it. */
export function AccessColumn({ node }: { readonly node: NodeView }) {
  const dispatch = useAppDispatch()
  // A board needs the room: there it is hidden until somebody wants it.
  const isBoard = node.kind === 'board'
  const isFolded = useAppSelector(({ view }) => (isBoard ? view.boardAccessFolded : view.accessFolded))
  const picked = useAppSelector(state => state.view.picked)
  if (isFolded)
    return (
      <aside aria-label="Access" className="border-l border-base-300 py-3 text-center">
        <button
          type="button"
          className="btn-inline [writing-mode:vertical-rl]"
          onClick={() => dispatch(foldAccess({ isBoard, isFolded: false }))}
        >
          Access
        </button>
      </aside>
    )
  return (
    <aside
      aria-label="Access"
      className="min-h-0 overflow-y-auto border-base-300 px-4 py-3 max-md:border-t md:border-l"
    >
      {picked.length > 0 ? (
        <Several places={picked} />
      ) : (
        <AccessHere node={node} onHide={() => dispatch(foldAccess({ isBoard, isFolded: true }))} />
      )}
    </aside>
  )
}

interface HereProps {
  readonly node: NodeView
  /** Where it can be hidden. */
  readonly onHide?: () => void
}

/** The same of one place, wherever it is shown. */
export function AccessHere({ node, onHide }: HereProps) {
  const { slug } = useHere()
  const { data: access, isFetching } = useAccessQuery({ slug, id: node.id })
  const [about, setAbout] = useState<WhyAbout>()
  if (access !== undefined && about !== undefined)
    return <Why about={about} access={access} node={node} onAbout={setAbout} />
  return (
    <>
      <div className="mb-1 flex items-baseline justify-between">
        <h2 className="text-lg font-bold">Access</h2>
        {/* What stands here is never older than what was last done: while it is asked for anew it says so. */}
        <span role="status" className="quiet text-sm">
          {isFetching ? 'Loading …' : ''}
        </span>
        {onHide !== undefined && (
          <button type="button" className="quiet cursor-pointer text-sm hover:underline" onClick={onHide}>
            Hide
          </button>
        )}
      </div>
      {access !== undefined && <Known access={access} node={node} onWhy={setAbout} />}
    </>
  )
}

export interface KnownProps<View = AccessView> {
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

const views = ['Grants', 'People with access'] as const

function All({ access, node, onWhy }: KnownProps<Extract<AccessView, { detail: 'all' }>>) {
  const { slug } = useHere()
  const [view, setView] = useState<(typeof views)[number]>('Grants')
  return (
    <>
      <StateHere access={access} node={node} />
      <RequestsHere requests={access.requests} held={node.actions} />
      <Share node={node} />
      <div className="mt-3 mb-1 flex items-baseline justify-between">
        <FilterWords label="Show" words={views} chosen={view} onChoose={setView} />
      </div>
      {view === 'Grants' ? (
        <Entries access={access} node={node} onWhy={onWhy} />
      ) : (
        <EverybodyHere access={access} node={node} onWhy={onWhy} />
      )}
      <Inheritance access={access} node={node} />
      <Limits access={access} node={node} onWhy={onWhy} />
      <section
        aria-label="More"
        className="mt-4 grid justify-items-start gap-1.5 border-t border-base-content pt-2"
      >
        <TakeOver node={node} />
        <CloseNow access={access} node={node} />
        <Watch access={access} node={node} />
        <Link className="link text-sm" to={`/at/${slug}/oversight/check?ask=who&place=${node.id}`}>
          Check who has access
        </Link>
        <Link className="link text-sm" to={`/at/${slug}/oversight/history?place=${node.id}`}>
          History of this place and below
        </Link>
      </section>
      <div className="mt-4">
        <TwoSentences />
      </div>
    </>
  )
}
