import { spawnSync } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'

/**
 * Plants one mistake after another in a copy of the core and runs its tests: each has to be caught.
 * npm run mutants [word …]: all of them, or those whose mistake has one of the words.
 */
interface Mutant {
  readonly mistake: string
  readonly file: string
  readonly find: string
  readonly put: string
}

const mutants: readonly Mutant[] = [
  {
    mistake: 'a walk ends where the web alone comes to see more',
    file: 'access/effect.ts',
    find: 'if (asked.isWeb || met.was === none || met.is === none) isAlike = false',
    put: 'if (met.was === none || met.is === none) isAlike = false',
  },
  {
    mistake: 'a walk ends where archives alone differ',
    file: 'access/effect.ts',
    find: '((met.statesBefore ^ met.statesAfter) & (state.archived | state.binned)) === 0',
    put: 'true',
  },
  {
    mistake: 'where somebody gives access above, what is hidden there is not counted',
    file: 'access/effect.ts',
    find: "return shared[depth] === true ? 'hidden' : 'none'",
    put: "return 'none'",
  },
  {
    mistake: 'everybody is told of what differs where they only see it',
    file: 'access/effect.ts',
    find: "return (held & sharing) !== 0 ? 'all' : 'own'",
    put: "return 'all'",
  },
  {
    mistake: 'the root and what lies right in it are one piece',
    file: 'access/side-by-side.ts',
    find: ' || isRoot(indexes[side], each[side])',
    put: '',
  },
  {
    mistake: 'one’s own raise is looked for only at the places themselves, whatever changes',
    file: 'changes/guards/own-raise.ts',
    find: 'whole.changes.every(isEntry) &&',
    put: '',
  },
  {
    mistake: 'limits stop at a break',
    file: 'access/place.ts',
    find: 'limits: joined(limits, parent.limits),',
    put: 'limits: isBroken ? limits : joined(limits, parent.limits),',
  },
  {
    mistake: 'what is given at the break itself does not count',
    file: 'access/place.ts',
    find: 'grants: isBroken ? own :',
    put: 'grants: isBroken ? [] :',
  },
  {
    mistake: 'a limit spares guests who are given share',
    file: 'access/evaluate.ts',
    find: 'if (isGuest) return intersect(intersect(held, capUnlessSpared), guestCeiling)',
    put: 'if (isGuest) return intersect((given & share) !== 0 ? held : intersect(held, capUnlessSpared), guestCeiling)',
  },
  {
    mistake: 'guests have no ceiling',
    file: 'access/evaluate.ts',
    find: 'if (isGuest) return intersect(intersect(held, capUnlessSpared), guestCeiling)',
    put: 'if (isGuest) return intersect(held, capUnlessSpared)',
  },
  {
    mistake: 'an end still counts at its instant',
    file: 'base/instant.ts',
    find: 'at < span.until)',
    put: 'at <= span.until)',
  },
  {
    mistake: 'makers do not see their own drafts',
    file: 'access/evaluate.ts',
    find: "!(read(stretches, base + inStretch.maker) === person && has(held, 'add'))",
    put: 'true',
  },
  {
    mistake: 'privileges that sleep in a scope count there',
    file: 'access/powers.ts',
    find: '[...privilegesOf(role)].filter(each => !isAsleep(each, over))',
    put: 'privilegesOf(role)',
  },
  {
    mistake: 'effects on privileges forget what is had over the whole workspace',
    file: 'impact/powers.ts',
    find: '!inAll(from, each) &&',
    put: '',
  },
  {
    mistake: 'a handover gives though who offered it is no owner any more',
    file: 'changes/edits/handover.ts',
    find: "if (!mayUse(now, before.from, 'own')) return refused({ code: 'handover-over' })",
    put: '',
  },
  {
    mistake: 'a request is answered with a role that was not asked for',
    file: 'changes/edits/role-request.ts',
    find: 'if (role === undefined || !answers(before.wants, role, gives.scope))',
    put: 'if (role === undefined)',
  },
  {
    mistake: 'one decides one’s own request',
    file: 'changes/edits/role-request.ts',
    find: 'asked === undefined || asked.person === context.author',
    put: 'asked === undefined',
  },
  {
    mistake: 'a role that a handover would keep is deleted',
    file: 'changes/edits/role-made.ts',
    find: 'allRows(state.handovers).some(each => each.keeps === id)',
    put: 'false',
  },
  {
    mistake: 'nothing is copied out of an archive',
    file: 'access/evaluate.ts',
    find: "actions('see', 'copy', 'share', 'seal')",
    put: "actions('see', 'share', 'seal')",
  },
  {
    mistake: 'guests count in every team',
    file: 'access/subject.ts',
    find: "person.kind === 'member' || rowOf(moment.state.teams, membership.team)?.welcomesGuests === true",
    put: 'true',
  },
  {
    mistake: 'guests are among all members',
    file: 'access/subject.ts',
    find: "isGuest ? 'guests' : 'everyone'",
    put: "'everyone'",
  },
  {
    mistake: 'one may raise oneself',
    file: 'changes/judge.ts',
    find: 'moveGains, ownRaise, stewardLeft',
    put: 'moveGains, stewardLeft',
  },
  {
    mistake: 'stewards are not looked for after all ends',
    file: 'changes/guards/steward-left.ts',
    find: "['now', 'after ends'] as const",
    put: "['now'] as const",
  },
  {
    mistake: 'a break keeps only what is live now',
    file: 'changes/edits/break.ts',
    find: '.filter(grant => !isOver(grant, at))',
    put: '.filter(grant => (grant.from ?? 0) <= at && !isOver(grant, at))',
  },
  {
    mistake: 'giving does not need to have it',
    file: 'changes/edits/grant.ts',
    find: 'return lacks.length === 0 ? undefined',
    put: 'return lacks.length >= 0 ? undefined',
  },
  {
    mistake: 'undoing overwrites what was changed since',
    file: 'changes/undo.ts',
    find: 'isSame(current[field], after[field])',
    put: 'true',
  },
  {
    mistake: 'a break does not keep the web out',
    file: 'access/public.ts',
    find: 'if ((bits & state.broken) !== 0) return false',
    put: '',
  },
  {
    mistake: 'limits on guests do not keep the web out',
    file: 'access/public.ts',
    find: 'const isForAll = (principalOf(found) & 3) === principalKind.all',
    put: 'const isForAll = (principalOf(found) & 3) === principalKind.all && principalOf(found) !== 7',
  },
  {
    mistake: 'remedies of three edits are missed',
    file: 'remedies/why-not.ts',
    find: 'const mostEdits = 3',
    put: 'const mostEdits = 2',
  },
  {
    mistake: 'an index loses the second entry of a place when the first goes',
    file: 'index/entries.ts',
    find: 'const second = nextOf(making, first)',
    put: 'const second = undefined as Slot | undefined',
  },
  {
    mistake: 'what lies below a new stretch stays in the old one',
    file: 'index/tree.ts',
    find: '  } else relabel(making, { top: node, was: within, becomes: stretch })',
    put: '  } else write(stretchOf, node, stretch)',
  },
  {
    mistake: 'a page that two states share is written',
    file: 'base/column.ts',
    find: 'if (writing.isOwn[index] !== true || ',
    put: 'if (writing.pages[index] === undefined || ',
  },
  {
    mistake: 'what is not seen at its head is not seen below it',
    file: 'access/what.ts',
    find: 'byStretch[stretch] = (byStretch[up] as number) & ~headHidden',
    put: 'byStretch[stretch] = (byStretch[up] as number) < 0 ? 0 : (byStretch[up] as number)',
  },
  {
    mistake: 'the effect on what lies below a place with something of its own is counted twice',
    file: 'access/regions.ts',
    find: 'nodes -= read(sizes, head)',
    put: '',
  },
  {
    mistake: 'effects are told for now only',
    file: 'impact/impact.ts',
    find: 'new Set(starts.length === 0 ? [now] : instantsOf(whole, { starts, people: reach.people }))',
    put: 'new Set([now])',
  },
  {
    mistake: 'what ended stays in the state',
    file: 'changes/passing.ts',
    find: 'before: row, after: null',
    put: 'before: row, after: row',
  },
  {
    mistake: 'deleting for good needs no more than binning',
    file: 'changes/edits/delete.ts',
    find: "lacksInBin(context, edit.node, 'seal')",
    put: "lacksInBin(context, edit.node, 'remove')",
  },
  {
    mistake: 'the bin is never emptied',
    file: 'changes/passing.ts',
    find: 'touched.push(...leavingBin(state, at), ...withSeatsPlanned(state, at))',
    put: 'touched.push(...withSeatsPlanned(state, at))',
  },
  {
    mistake: 'a copy holds what its author may not copy',
    file: 'changes/edits/duplicate.ts',
    find: "if (!has(authorActions(context, from.id), 'copy')) continue",
    put: '',
  },
  {
    mistake: 'breaks do not travel with a copy',
    file: 'changes/edits/duplicate.ts',
    find: 'broken: from.broken === null ? null : { by: author, at: now.at },',
    put: '',
  },
  {
    mistake: 'access is recovered where somebody stewards',
    file: 'changes/edits/recover.ts',
    find: 'return hasSteward(now, place) ?',
    put: 'return place.node.id === now.state.revision.toString() ?',
  },
  {
    mistake: 'access is recovered round a steward who comes back in the same set',
    file: 'changes/guards/recovered.ts',
    find: 'place !== undefined && hasSteward(after, place)',
    put: 'place === undefined',
  },
  {
    mistake: 'a member turned guest keeps stewardship in the records',
    file: 'changes/edits/turn.ts',
    find: 'return [...lowered, ...own,',
    put: 'return [...own,',
  },
  {
    mistake: 'a private folder is handed over by anybody who may turn people',
    file: 'changes/edits/turn.ts',
    find: '?? lacksHandingOver(context, edit),',
    put: ',',
  },
  {
    mistake: 'the invited take no seat',
    file: 'access/seats.ts',
    find: "person.status === 'removed' ||",
    put: "person.status === 'removed' || person.status === 'invited' ||",
  },
  {
    mistake: 'a role may come to hold what its author lacks',
    file: 'changes/edits/role-made.ts',
    find: 'given: gained(before, after),',
    put: 'given: before === null ? gained(before, after) : [],',
  },
  {
    mistake: 'a restricted column is seen by all who see the row',
    file: 'access/columns.ts',
    find: "if (!isNamed(column.viewers)) return 'none'",
    put: '',
  },
  {
    mistake: 'raising oneself through a column is not noticed',
    file: 'changes/guards/own-raise.ts',
    find: 'if (!isNew && rank[each.after] > rank[each.before]) raised.add(each.at)',
    put: '',
  },
  {
    mistake: 'the effect of a team is looked for at its home only',
    file: 'changes/touched.ts',
    find: 'return [...homes, ...placesNaming(state, [teamPrincipal(change.id), leadsPrincipal(change.id)])]',
    put: 'return homes',
  },
  {
    mistake: 'ends of memberships are no instants of an effect',
    file: 'changes/instants.ts',
    find: 'note({ flags, column: memberships, address: at + inMembership.times })',
    put: '',
  },
  {
    mistake: 'a place keeps the grants of its parent through a break',
    file: 'access/place.ts',
    find: 'grants: isBroken ? own : joined(own, parent.grants),',
    put: 'grants: joined(own, parent.grants),',
  },
  {
    mistake: 'anybody changes what a link of somebody else gives',
    file: 'changes/edits/welcome-set.ts',
    find: 'return isOfferedByAnother(context, kept)',
    put: 'return false',
  },
  {
    mistake: 'a link lets in one more than it says',
    file: 'changes/edits/join-link.ts',
    find: 'used < most)',
    put: 'used <= most)',
  },
  {
    mistake: 'a domain lets in those below it',
    file: 'changes/edits/invite.ts',
    find: "domains.includes(mail.slice(mail.lastIndexOf('@') + 1).toLowerCase())",
    put: 'domains.some(each => mail.toLowerCase().endsWith(each))',
  },
  {
    mistake: 'a role may be given that holds more than its giver',
    file: 'changes/edits/invite.ts',
    find: "if (held === undefined) return { code: 'privilege-missing', privilege }",
    put: 'if (held === undefined) continue',
  },
  {
    mistake: 'house rules need not be accepted',
    file: 'changes/edits/invitation.ts',
    find: "if (houseRules !== '' && !edit.agrees)",
    put: 'if (false)',
  },
  {
    mistake: 'whoever invites hands on the links of others',
    file: 'changes/edits/invitation.ts',
    find: "return isIts ? undefined : { code: 'not-its-maker', what: 'invitation' }",
    put: 'return undefined',
  },
  {
    mistake: 'a handle that was given up is free for others',
    file: 'changes/edits/handle.ts',
    find: "refused({ code: 'already-there', what: 'handle' })",
    put: 'ok([])',
  },
  {
    mistake: 'whoever asks for access can answer it',
    file: 'changes/edits/access-request.ts',
    find: 'asked === undefined || asked.person === context.author',
    put: 'asked === undefined',
  },
  {
    mistake: 'anybody who sees a place decides what is asked for there',
    file: 'changes/edits/access-request.ts',
    find: "lacksActionInArchive(context, asked.node, 'share') === undefined",
    put: "lacksActionInArchive(context, asked.node, 'see') === undefined",
  },
  {
    mistake: 'what is given to who asked does not answer them',
    file: 'changes/edits/grant.ts',
    find: '.filter(each => each.node === node)',
    put: '.filter(() => false)',
  },
  {
    mistake: 'a watch is for whoever sees the place',
    file: 'changes/edits/watch.ts',
    find: "lacks: (context, { node }) => lacksActionInArchive(context, node, 'share'),",
    put: "lacks: (context, { node }) => lacksActionInArchive(context, node, 'see'),",
  },
]

const root = resolve(import.meta.dirname, '..')
const copy = mkdtempSync(join(tmpdir(), 'noskel-mutants-'))
for (const part of ['core', 'package.json', 'tsconfig.base.json'])
  cpSync(join(root, part), join(copy, part), { recursive: true })
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'))
const config = "export default { test: { include: ['core/**/*.test.ts'], testTimeout: 60000, bail: 1 } }\n"
writeFileSync(join(copy, 'vitest.config.js'), config)

const words = process.argv.slice(2)
const planted = mutants.filter(
  ({ mistake }) => words.length === 0 || words.some(word => mistake.includes(word)),
)
const missed: string[] = []
try {
  if (!passes()) throw new Error('the tests of the core must pass before a mistake is planted')
  for (const { mistake, file, find, put } of planted) {
    const path = join(copy, 'core', file)
    const right = readFileSync(path, 'utf8')
    if (!right.includes(find)) throw new Error(`${file} does not hold: ${find}`)
    writeFileSync(path, right.replace(find, put))
    const isCaught = !passes()
    writeFileSync(path, right)
    process.stdout.write(`${isCaught ? 'caught' : 'MISSED'}  ${mistake}\n`)
    if (!isCaught) missed.push(mistake)
  }
} finally {
  rmSync(copy, { recursive: true, force: true })
}
process.stdout.write(`${planted.length - missed.length} of ${planted.length} mistakes are caught.\n`)
process.exitCode = missed.length === 0 ? 0 : 1

function passes(): boolean {
  const { status } = spawnSync('npx', ['vitest', 'run', '--silent'], { cwd: copy, stdio: 'ignore' })
  return status === 0
}
