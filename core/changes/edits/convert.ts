import { rowOf, rowsBy } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { actionsGiven } from '../../access/place.ts'
import { mayUse } from '../../access/powers.ts'
import { subjectOf } from '../../access/subject.ts'
import { has, without } from '../../levels/action.ts'
import type { Holding, Person } from '../../people/person.ts'
import { guestRole } from '../../people/role.ts'
import { personPrincipal } from '../../rules/principal.ts'
import { privateFolderOf, type RecordChange, type State, workspaceOf } from '../../state/state.ts'
import type { ContentNode } from '../../tree/node.ts'
import { authorActions, type Context, type EditOf, type EditRule } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { gone } from '../../state/naming.ts'
import { privateFolder } from './invitation.ts'
import { unwelcomeDomain } from './invite.ts'
import { lacksOver } from './person.ts'
import type { GrantId, HoldingId, NodeId, PersonId } from '../../base/ids.ts'

/** Makes a member a guest, or a guest a member. */
export interface ConvertPerson {
  readonly kind: 'person.convert'
  readonly person: PersonId
  readonly as: Person['kind']
  readonly holding: HoldingId
  /** The private folder that a new member gets, with its grant. */
  readonly folder: NodeId
  readonly grant: GrantId
  /** Who takes over the private folder of a member that becomes a guest; without one it goes to the bin. */
  readonly taker: PersonId | null
}

/**
 * Makes a member a guest or a guest a member. Their grants lose what no guest may hold; their private
 * folder is taken over or binned. Roles beside the usual one, and teams that do not welcome guests, are
 * cleared by other edits of the same change set.
 */
export const convertPerson: EditRule<ConvertPerson> = {
  kind: 'person.convert',
  lacks: (context, edit) =>
    lacksOver(context, edit.person, 'invite members') ?? lacksHandingOver(context, edit),
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.persons, edit.person)
    if (before === undefined || before.status === 'removed')
      return refused({ code: 'unknown', what: 'person' })
    const unwelcome = unwelcomeDomain(state, { mail: before.mail, as: edit.as })
    if (unwelcome !== undefined) return refused(unwelcome)
    if (before.kind === edit.as) return refused({ code: 'already-there', what: 'kind' })
    if (edit.taker !== null && !isTaker(context, edit)) return refused({ code: 'unknown', what: 'person' })
    const contact = edit.as === 'guest' ? (before.contact ?? context.author) : null
    const after: Person = { ...before, kind: edit.as, contact }
    return ok([
      { table: 'persons', id: before.id, before, after },
      ...usualRole(state, before, edit),
      ...(edit.as === 'guest' ? asGuest(context, before, edit) : asMember(context, before, edit)),
    ])
  },
}

/** The usual role of one kind makes way for that of the other. */
function usualRole(
  state: State,
  before: Person,
  { holding: id, as }: EditOf<'person.convert'>,
): RecordChange[] {
  const { defaultRole } = workspaceOf(state)
  const [from, to] = as === 'guest' ? [defaultRole, guestRole] : [guestRole, defaultRole]
  const after: Holding = {
    id,
    person: before.id,
    role: to,
    scope: { over: 'workspace' },
    from: null,
    until: null,
  }
  const held = rowsBy(state.holdings, 'person', before.id)
  const left = held.filter(each => each.role === from).map(each => gone('holdings', each))
  const isHeld = held.some(each => each.role === to && each.scope.over === 'workspace')
  return isHeld ? left : [...left, { table: 'holdings', id, before: null, after }]
}

function asGuest(context: Context, person: Person, { taker }: EditOf<'person.convert'>): RecordChange[] {
  const { state, at } = context.now
  const folder = privateFolderOf(state, person.id)
  const grants = rowsBy(state.grants, 'principal', personPrincipal(person.id))
  const lowered = grants
    .filter(grant => grant.node !== folder?.id && has(actionsGiven(state, grant.gives), 'share'))
    .map((before): RecordChange => {
      const gives = without(actionsGiven(state, before.gives), 'share')
      return { table: 'grants', id: before.id, before, after: { ...before, gives, by: context.author, at } }
    })
  if (folder === undefined) return lowered
  const own = grants.filter(grant => grant.node === folder.id).map(grant => gone('grants', grant))
  return [...lowered, ...own, leftFolder(context, folder, { person, taker })]
}

/** Handed over, it becomes a folder in the taker's own private one. */
function leftFolder(
  { author, now: { state, at } }: Context,
  before: ContentNode,
  { person, taker }: { person: Person; taker: Person['id'] | null },
): RecordChange {
  const into = taker === null ? undefined : privateFolderOf(state, taker)
  const after =
    into === undefined
      ? { ...before, binned: before.binned ?? { by: author, at } }
      : { ...before, parent: into.id, home: null, broken: null, name: `Private folder of ${person.name}` }
  return { table: 'nodes', id: before.id, before, after }
}

/** A private folder that still lies in the bin comes back. The invited get theirs when they come in. */
function asMember(context: Context, person: Person, edit: EditOf<'person.convert'>): RecordChange[] {
  if (person.status === 'invited') return []
  const folder = privateFolderOf(context.now.state, person.id)
  const [node, grant] = privateFolder(context, edit)
  if (folder === undefined || node === undefined || grant === undefined) return privateFolder(context, edit)
  const own = {
    ...grant,
    after: grant.after === null ? null : { ...grant.after, node: folder.id },
  } as RecordChange
  return [{ table: 'nodes', id: folder.id, before: folder, after: { ...folder, binned: null } }, own]
}

/** What is private is handed over by whoever shares there, or may recover access; to an active member. */
function lacksHandingOver(
  context: Context,
  { person, taker }: EditOf<'person.convert'>,
): Refusal | undefined {
  const folder = privateFolderOf(context.before.state, person)
  if (taker === null || folder === undefined) return undefined
  const may =
    has(authorActions(context, folder.id), 'share') ||
    mayUse(context.before, context.author, 'recover access')
  return may ? undefined : { code: 'privilege-missing', privilege: 'recover access' }
}

function isTaker({ now }: Context, { person, taker }: EditOf<'person.convert'>): boolean {
  const subject = taker === null ? undefined : subjectOf(now, taker)
  const isMember = subject?.isActive === true && !subject.isGuest && taker !== person
  return isMember && privateFolderOf(now.state, subject.person.id) !== undefined
}
