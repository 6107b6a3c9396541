import { spawnSync } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'

/**
 * Plants one mistake after another in a copy of the core and runs its tests: each has to be caught.
 * npm run mutants
 */
interface Mutant {
  readonly mistake: string
  readonly file: string
  readonly find: string
  readonly put: string
}

const mutants: readonly Mutant[] = [
  {
    mistake: 'limits stop at a break',
    file: 'access/place.ts',
    find: 'limits: path\n',
    put: 'limits: path.slice(0, reach)\n',
  },
  {
    mistake: 'what is given at the break itself does not count',
    file: 'access/place.ts',
    find: 'path.indexOf(breakAt) + 1',
    put: 'path.indexOf(breakAt)',
  },
  {
    mistake: 'a limit spares guests who are given share',
    file: 'access/evaluate.ts',
    find: ' && !subject.isGuest && has(given',
    put: ' && has(given',
  },
  {
    mistake: 'guests have no ceiling',
    file: 'access/evaluate.ts',
    find: 'subject.isGuest ? intersect(limited, guestCeiling(moment.state)) : limited',
    put: 'limited',
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
    find: "!(place.node.maker === subject.person.id && has(held, 'add'))",
    put: 'true',
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
    find: 'if (node.broken !== null) return false',
    put: '',
  },
  {
    mistake: 'limits on guests do not keep the web out',
    file: 'access/public.ts',
    find: "['anyone', 'everyone', 'guests']",
    put: "['anyone', 'everyone']",
  },
  {
    mistake: 'remedies of three edits are missed',
    file: 'remedies/why-not.ts',
    find: 'const mostEdits = 3',
    put: 'const mostEdits = 2',
  },
  {
    mistake: 'effects are told for now only',
    file: 'impact/impact.ts',
    find: 'for (const at of instantsOf(whole, reach)) {',
    put: 'for (const at of [whole.after.at]) {',
  },
  {
    mistake: 'what ended stays in the state',
    file: 'changes/passing.ts',
    find: "after: table === 'persons' ? row : null",
    put: 'after: row',
  },
]

const root = resolve(import.meta.dirname, '..')
const copy = mkdtempSync(join(tmpdir(), 'noskel-mutants-'))
for (const part of ['core', 'package.json', 'tsconfig.base.json'])
  cpSync(join(root, part), join(copy, part), { recursive: true })
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'))
const config = "export default { test: { include: ['core/**/*.test.ts'], testTimeout: 60000, bail: 1 } }\n"
writeFileSync(join(copy, 'vitest.config.js'), config)

const missed: string[] = []
try {
  if (!passes()) throw new Error('the tests of the core must pass before a mistake is planted')
  for (const { mistake, file, find, put } of mutants) {
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
process.stdout.write(`${mutants.length - missed.length} of ${mutants.length} mistakes are caught.\n`)
process.exitCode = missed.length === 0 ? 0 : 1

function passes(): boolean {
  const { status } = spawnSync('npx', ['vitest', 'run', '--silent'], { cwd: copy, stdio: 'ignore' })
  return status === 0
}
