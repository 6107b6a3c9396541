import { Link } from 'react-router'
import { useAccessQuery, usePeopleNamesQuery, useTeamsQuery, useTreeQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { putStepsAway } from '../../store/view.ts'

interface Step {
  readonly word: string
  readonly why: string
  readonly to: string
  readonly isDone: boolean
}

/** What a new workspace needs first, to whoever can do it: each is gone once it is done, and all can be put away. */
export function FirstSteps() {
  const { slug, workspace } = useHere()
  const dispatch = useAppDispatch()
  const isAway = useAppSelector(state => state.view.stepsPutAway.includes(slug))
  const { privileges } = workspace.me
  const mayAll = (['invite members', 'create teams', 'create homes'] as const).every(each =>
    privileges.includes(each),
  )
  const isShown = mayAll && !isAway
  const open = useSteps(slug, !isShown).filter(step => !step.isDone)
  if (!isShown || open.length === 0) return null
  return (
    <section
      aria-label="First steps"
      className="mb-6 max-w-2xl border-l-4 border-primary bg-base-200 px-4 py-3"
    >
      <div className="mb-1 flex items-baseline justify-between gap-4">
        <h2 className="text-lg font-bold">First steps</h2>
        <button type="button" className="btn-inline text-sm" onClick={() => dispatch(putStepsAway(slug))}>
          Hide
        </button>
      </div>
      <ol>
        {open.map(({ word, why, to }) => (
          <li key={word} className="flex flex-wrap items-baseline gap-x-3 border-t border-base-300 py-1.5">
            <Link className="link font-semibold" to={to}>
              {word}
            </Link>
            <span className="quiet text-sm">{why}</span>
          </li>
        ))}
      </ol>
    </section>
  )
}

/** None, until all is known that tells which are done. */
function useSteps(slug: string, skip: boolean): Step[] {
  const { data: people } = usePeopleNamesQuery(slug, { skip })
  const { data: teams } = useTeamsQuery(slug, { skip })
  const { data: tree } = useTreeQuery(slug, { skip })
  const home = tree?.homes.find(each => each.home === 'shared')
  const isShared = useIsShared(home?.id, skip)
  if (people === undefined || teams === undefined || tree === undefined) return []
  const here = (path: string) => `/at/${slug}/${path}`
  return [
    {
      word: 'Invite people',
      why: 'Members work here, guests see only what is shared with them.',
      to: here('people/invite'),
      isDone: people.length > 1,
    },
    {
      word: 'Create team',
      why: 'A team has a home, and is given access as one.',
      to: here('teams/new'),
      isDone: teams.some(team => team.joining !== 'everyone'),
    },
    {
      word: 'Create shared home',
      why: 'The top of a tree of folders, boards and pages.',
      to: here('content/new-home'),
      isDone: home !== undefined,
    },
    {
      word: `Share ${home?.name ?? 'a place'} with somebody`,
      why: 'In the access column, at the right of every place.',
      to: here(home === undefined ? 'content/new-home' : `content/${home.id}`),
      isDone: isShared,
    },
  ]
}

/** Whether others can open a place: counted as done where one may not know. */
function useIsShared(place: string | undefined, skip: boolean): boolean {
  const { slug } = useHere()
  const { data } = useAccessQuery({ slug, id: place ?? '' }, { skip: skip || place === undefined })
  if (place === undefined) return false
  return data?.detail !== 'all' || data.peopleCount > 1
}
