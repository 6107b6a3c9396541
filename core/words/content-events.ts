import type { NodeId } from '../base/ids.ts'
import { isSame } from '../base/same.ts'
import type { ChangeOf } from '../changes/conduct.ts'
import type { BoardColumn } from '../rules/column.ts'
import type { Grant, Limit } from '../rules/access-entry.ts'
import type { ContentNode } from '../tree/node.ts'
import { changedFields, columnFields } from './changed-fields.ts'
import { type EventNaming, lasting } from './audit-event.ts'

/** What was done about places and access to them, told after its author's name. */

const placeOf = (row: Pick<Grant | Limit, 'node'>, naming: EventNaming) =>
  naming.where(row.node) ?? 'a deleted place'

export function grantWords({ before, after }: ChangeOf<'grants'>, naming: EventNaming): string {
  const row = (after ?? before) as Grant
  const who = naming.principal(row.principal)
  const at = placeOf(row, naming)
  if (before === null) return `gave ${who} ${naming.level(row.gives)} on ${at}${lasting(row, naming)}`
  const level = naming.level(row.gives)
  if (after === null) return `ended the ${level} grant of ${who} on ${at}`
  if (isSame(before, after)) return `started the ${level} grant of ${who} on ${at}`
  const end =
    before.until === after.until ? '' : after.until === null ? ', without an end' : lasting(after, naming)
  if (before.gives !== after.gives)
    return `changed ${who} from ${naming.level(before.gives)} to ${level} on ${at}${end}`
  return end === ''
    ? `changed the ${level} grant of ${who} on ${at}`
    : `changed the end of the ${level} grant of ${who} on ${at}:${end.replace(/^,/u, '')}`
}

export function limitWords({ before, after }: ChangeOf<'limits'>, naming: EventNaming): string {
  const row = (after ?? before) as Limit
  const who = naming.principal(row.principal)
  const at = placeOf(row, naming)
  if (after === null) return `removed the limit of ${who} to ${naming.level(row.allows)} on ${at}`
  if (isSame(before, after)) return `started the limit of ${who} on ${at}`
  const word = before === null ? 'limited' : 'changed the limit of'
  return `${word} ${who} to ${naming.level(row.allows)} on ${at}${lasting(row, naming)}`
}

export function nodeWords({ id, before, after }: ChangeOf<'nodes'>, naming: EventNaming): string {
  const name = naming.place(id) ?? ((after ?? before) as ContentNode).name
  if (after === null) return goneWords(before, name)
  const parent = after.parent === null || after.home !== null ? undefined : naming.place(after.parent)
  if (before === null) {
    const kind = after.home === null ? after.kind : 'home'
    return `created the ${kind} ${name}${parent === undefined ? '' : ` in ${parent}`}`
  }
  return changesOfNode({ name, where: naming.where(id) ?? name, parent, before, after })
}

const goneWords = (before: ContentNode | null, name: string): string =>
  before?.binned == null
    ? `removed the ${before?.kind ?? 'place'} ${name}`
    : `deleted the ${before.kind} ${name} for good`

function changesOfNode(event: ToldNode): string {
  const acts = nodeActs.flatMap(({ differs, words }) =>
    differs(event.before, event.after) ? [words(event)] : [],
  )
  return acts.join(', ') || `changed ${event.name}`
}

interface ToldNode {
  readonly name: string
  readonly where: string
  readonly parent: string | undefined
  readonly before: ContentNode
  readonly after: ContentNode
}

interface NodeAct {
  readonly differs: (before: ContentNode, after: ContentNode) => boolean
  readonly words: (event: ToldNode) => string
}

const nodeActs: readonly NodeAct[] = [
  {
    differs: (before, after) => before.name !== after.name,
    words: ({ before, after }) => `renamed ${before.name} to ${after.name}`,
  },
  {
    differs: (before, after) => before.parent !== after.parent,
    words: ({ name, parent }) => `moved ${name}${parent === undefined ? '' : ` to ${parent}`}`,
  },
  {
    differs: (before, after) => before.note !== after.note,
    words: ({ name }) => `changed the description of ${name}`,
  },
  {
    differs: (before, after) => (before.broken === null) !== (after.broken === null),
    words: ({ where, after }) =>
      after.broken === null ? `restored inheritance on ${where}` : `broke inheritance on ${where}`,
  },
  {
    differs: (before, after) => (before.binned === null) !== (after.binned === null),
    words: ({ name, after }) =>
      after.binned !== null ? `moved ${name} to the bin` : `restored ${name} from the bin`,
  },
  {
    differs: (before, after) => before.archived !== after.archived,
    words: ({ name, after }) => (after.archived ? `archived ${name}` : `restored ${name} from the archive`),
  },
  {
    differs: (before, after) => before.draft !== after.draft,
    words: ({ name, after }) => (after.draft ? `turned ${name} into a draft` : `released ${name}`),
  },
  {
    differs: (before, after) => before.web !== after.web,
    words: ({ where, before, after }) => webWords(where, before.web, after.web),
  },
  {
    differs: (before, after) => before.order !== after.order || before.section !== after.section,
    words: ({ name }) => `changed the order of ${name}`,
  },
]

function webWords(where: string, before: ContentNode['web'], after: ContentNode['web']): string {
  if (after === 'published') return `published ${where} to the web`
  if (after === 'excluded') return `kept ${where} off the web`
  return before === 'published' ? `took ${where} off the web` : `stopped keeping ${where} off the web`
}

export function levelWords({ before, after }: ChangeOf<'levels'>, naming: EventNaming): string {
  if (before === null) return `created the level ${after?.name ?? ''}`
  if (after === null) return `deleted the level ${before.name}`
  return before.actions === after.actions
    ? `renamed the level ${before.name} to ${after.name}`
    : `changed the level ${after.name} from ${naming.level(before.actions)} to ${naming.level(after.actions)}`
}

/** Who reads the history need not see a restricted column, or be in a restricted channel: these are not named. */
export function columnWords({ before, after }: ChangeOf<'columns'>, naming: EventNaming): string {
  const row = (after ?? before) as BoardColumn
  const isHidden = [before, after].some(each => each !== null && each.viewers !== null)
  const column = `${isHidden ? 'a restricted column' : `the column ${row.name}`} of ${naming.where(row.board) ?? 'a board'}`
  if (before === null) return `created ${column}`
  if (after === null) return `deleted ${column}`
  const isSharing = !isSame([before.viewers, before.editors], [after.viewers, after.editors])
  return isSharing
    ? `changed who can see or edit ${column}`
    : `changed ${column}${isHidden ? '' : changedFields(before, after, columnFields)}`
}

export const sectionWords = ({ before, after }: ChangeOf<'sections'>, naming: EventNaming): string =>
  partWords('section', { before, after }, naming)

export const boardViewWords = ({ before, after }: ChangeOf<'boardViews'>, naming: EventNaming): string =>
  partWords('view', { before, after }, naming)

interface PartOfBoard {
  readonly name: string
  readonly order: number
  readonly board: NodeId
}

function partWords(
  what: string,
  { before, after }: { readonly before: PartOfBoard | null; readonly after: PartOfBoard | null },
  naming: EventNaming,
): string {
  const board = naming.where((after ?? before)?.board as NodeId) ?? 'a board'
  if (before === null) return `created the ${what} ${after?.name ?? ''} of ${board}`
  if (after === null) return `deleted the ${what} ${before.name} of ${board}`
  if (before.name !== after.name) return `renamed the ${what} ${before.name} of ${board} to ${after.name}`
  return before.order === after.order
    ? `changed the ${what} ${after.name} of ${board}`
    : `changed the order of the ${what} ${after.name} of ${board}`
}
