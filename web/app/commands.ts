import type { WorkspaceView } from '#contract/views/workspace.ts'

export interface Command {
  readonly word: string
  readonly to: string
}

/** What one may do from anywhere, by its words. */
export function commandsFor({ slug, me, managesPeople }: WorkspaceView): Command[] {
  const here = (path: string) => `/at/${slug}${path}`
  const may = (...needed: readonly string[]) => me.privileges.some(each => needed.includes(each))
  const commands: readonly (readonly [isOffered: boolean, word: string, to: string])[] = [
    [may('invite members', 'invite guests'), 'Invite people', here('/people/invite')],
    [may('invite members', 'invite guests'), 'Import people from CSV', here('/people/import')],
    [may('invite members', 'invite guests'), 'Create join link', here('/people/onboarding/new-link')],
    [may('invite members', 'invite guests'), 'Create welcome set', here('/people/onboarding/new-set')],
    [managesPeople, 'Show people', here('/people')],
    [managesPeople, 'Show guests', here('/people?as=guest')],
    [managesPeople, 'Show invitations', here('/people?status=invited')],
    [managesPeople, 'Show people whose access ends soon', here('/people?only=ends+soon')],
    [may('view people'), 'Find colleagues', here('/people/directory')],
    [may('create teams'), 'Create team', here('/teams/new')],
    [true, 'Show teams', here('/teams')],
    [may('edit roles'), 'Create role', here('/roles/new')],
    [may('view roles'), 'Show roles', here('/roles')],
    [may('view roles'), 'Show roles and privileges as a matrix', here('/roles/matrix')],
    [may('view roles'), 'Show who has a privilege', here('/roles/privileges')],
    [me.kind === 'member', 'Request a role', here('/roles/requests')],
    [may('view seats'), 'Show seats', here('/settings/seats')],
    [may('see storage'), 'Show storage', here('/settings/storage')],
    [may('edit settings'), 'File settings', here('/settings/files')],
    [true, 'Search', here('/search')],
    [may('own'), 'Hand over the workspace', here('/settings/owners')],
    [may('see as', 'see the outline'), 'See the workspace as somebody else', here('/oversight/sessions')],
    [may('create homes'), 'Create shared home', here('/content/new-home')],
    [true, 'Open content', here('/content')],
    [true, 'Show the bin', here('/content/bin')],
    [true, 'Check who can do what, where and why', here('/oversight/check')],
    [true, 'Show requests for access', here('/oversight/requests')],
    [true, 'Show draft changes', here('/oversight/draft')],
    [may('view roles', 'edit levels'), 'Show access levels', here('/roles/levels')],
    [me.kind === 'member', 'Show the history', here('/oversight/history')],
    [may('edit settings', 'security'), 'Open settings', here('/settings')],
    [true, 'Show my access and roles', here('/me')],
    [true, 'Notification settings', here('/notifications')],
    [true, 'My account and sign-in', '/account'],
    [true, 'Switch workspace', '/workspaces'],
  ]
  return commands.flatMap(([isOffered, word, to]) => (isOffered ? [{ word, to }] : []))
}

/** Those of which every word is in their own. */
export function commandsWith(commands: readonly Command[], typed: string): Command[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  return commands.filter(({ word }) => words.every(each => word.toLowerCase().includes(each)))
}
