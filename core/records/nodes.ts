import {
  type Context,
  firstLack,
  lacksAction,
  lacksActionInArchive,
  lacksEditing,
  lacksPrivilege,
} from '../changes/context.ts'
import { homeIn, isBreak, isMadeOrUnmade, type LeadingChanges } from '../changes/consequences.ts'
import type { ChangeOf } from '../changes/conduct.ts'
import { lacksMoving } from '../changes/edits/move.ts'
import { lacksInBin } from '../changes/edits/node-state.ts'
import { lacksOrdering } from '../changes/edits/node.ts'
import type { Refusal } from '../changes/refusal.ts'
import { isOfAccess } from '../index/advance.ts'
import { binTime } from '../state/dates.ts'
import type { ContentNode } from '../tree/node.ts'
import { nodeWords } from '../words/content-events.ts'
import type { NodeId } from '../base/ids.ts'
import { isSame } from '../base/same.ts'
import { teamPrincipal } from '../rules/principal.ts'
import type { RecordKind } from './kind.ts'
import { id, within } from './references.ts'
import type { TeamId } from '../base/ids.ts'

export const nodes: RecordKind<'nodes'> = {
  fields: {
    id: 'text',
    parent: 'text',
    kind: 'text',
    name: 'text',
    note: 'text',
    maker: 'text',
    madeAt: 'number',
    order: 'number',
    section: 'text',
    serial: 'number',
    home: 'json',
    broken: 'json',
    draft: 'boolean',
    archived: 'boolean',
    archivedAt: 'number',
    binned: 'json',
    web: 'text',
  },
  indexes: {
    parent: row => row.parent ?? 'none',
    home: homeKey,
    bin: row => (row.binned === null ? null : 'bin'),
  },
  references: [
    id('parent', 'nodes', { whenGone: 'goes along', index: 'parent' }),
    id('maker', 'persons', { whenGone: 'stays' }),
    id('section', 'sections', { whenGone: 'stays', key: { none: 'a row outlives its section' } }),
    {
      ...within('home', 'teams', {
        ids: ({ home }) => (home?.of === 'team' ? [home.team] : []),
        whenGone: 'goes along',
      }),
      by: { index: 'home', keys: team => [teamPrincipal(team as TeamId)] },
    },
    // What was somebody's own stays: others may have to take it over.
    within('home', 'persons', {
      ids: ({ home }) => (home?.of === 'person' ? [home.person] : []),
      whenGone: 'stays',
    }),
  ],
  dates: { binEnds: ({ binned }) => (binned === null ? null : binned.at + binTime) },
  rights: lacksNode,
  about: change => ({ category: isBreak(change) ? 'inheritance' : 'places', place: change.id }),
  isConsequence: (change, leading) =>
    isSerialAlone(change) ||
    (isMadeOrUnmade(change)
      ? isMadeAsConsequence(change, leading)
      : homeIn(change) === 'person' && leading.leavers.size > 0),
  standsAt: row => row.id,
  people: change => (isOfAccess('nodes', change) ? 'everybody' : []),
  places: (_, change) => (isOfAccess('nodes', change) ? [change.id] : []),
  // A number that a board gave is given for ever.
  goneBack: (current, back) => (back.kind === 'board' ? { ...back, serial: current.serial } : back),
  isOfWeb: true,
  words: nodeWords,
}

function homeKey({ home }: ContentNode): string | null {
  if (home === null || home.of === 'shared') return null
  return home.of === 'team' ? `team:${home.team}` : `person:${home.person}`
}

/** A board gave a number to a row that is told itself. */
const isSerialAlone = ({ before, after }: ChangeOf<'nodes'>): boolean =>
  before !== null && after?.kind === 'board' && isSame({ ...before, serial: after.serial }, after)

const isMadeAsConsequence = (change: ChangeOf<'nodes'>, { hasTeam, gone, count }: LeadingChanges): boolean =>
  (hasTeam && homeIn(change) === 'team') ||
  (homeIn(change) === 'person' && count > 1) ||
  (change.after === null && gone.has(change.before?.parent as NodeId))

function lacksNode(
  context: Context,
  before: ContentNode | null,
  after: ContentNode | null,
): Refusal | undefined {
  if (before === null) return after === null ? undefined : lacksMaking(context, after)
  if (after === null) return lacksUnmaking(context, before)
  const { id } = before
  return (
    lacksState(context, before, after) ??
    firstLack([
      [before.parent !== after.parent, () => lacksMoving(context, id, after.parent ?? id)],
      [before.broken !== after.broken, () => lacksActionInArchive(context, id, 'seal')],
      [before.web !== after.web, () => lacksAction(context, id, 'publish')],
      [isReordered(before, after), () => lacksOrdering(context, id)],
      [isDescribed(before, after), () => lacksEditing(context, id)],
    ])
  )
}

/** What is moved elsewhere takes whatever place and section it gets there. */
const isReordered = (before: ContentNode, after: ContentNode) =>
  before.order !== after.order || (before.section !== after.section && before.parent === after.parent)

const isDescribed = (before: ContentNode, after: ContentNode) =>
  before.name !== after.name || before.note !== after.note || before.draft !== after.draft

function lacksState(context: Context, before: ContentNode, after: ContentNode): Refusal | undefined {
  if (before.binned !== null && after.binned === null) return lacksInBin(context, before.id, 'remove')
  const isSame = (before.binned === null) === (after.binned === null) && before.archived === after.archived
  return isSame ? undefined : lacksActionInArchive(context, before.id, 'remove')
}

const lacksMaking = (context: Context, { home, parent }: ContentNode): Refusal | undefined =>
  home === null && parent !== null
    ? lacksAction(context, parent, 'add')
    : lacksPrivilege(context, home?.of === 'team' ? 'create teams' : 'create homes')

/** What one made oneself, with nothing in it yet, one may unmake; else it is deleting for good. */
const lacksUnmaking = (context: Context, { id, maker }: ContentNode): Refusal | undefined =>
  maker === context.author && lacksAction(context, id, 'add') === undefined
    ? undefined
    : lacksAction(context, id, 'seal')
