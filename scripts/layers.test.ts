import { ESLint } from 'eslint'
import { resolve } from 'node:path'
import { describe, expect, test } from 'vitest'
import { foldersIn, ordered } from './layers.js'

/** The import rules at work: each line is put at the head of a file that stands there, and linted. */
const eslint = new ESLint({ cwd: resolve(import.meta.dirname, '..') })
const layerRules = ['import-x/no-restricted-paths', 'no-restricted-imports', 'no-restricted-globals']

async function faults(file: string, line: string): Promise<string[]> {
  const [result] = await eslint.lintText(`${line}\n`, { filePath: file })
  return (result?.messages ?? []).flatMap(each =>
    each.ruleId !== null && layerRules.includes(each.ruleId) ? [each.message] : [],
  )
}

describe('what must fail', () => {
  test.each([
    ['core/base/table.ts', "import '../levels/action.ts'"],
    ['core/access/evaluate.ts', "import '../changes/judge.ts'"],
    ['core/state/state.ts', "import 'react'"],
    ['core/state/state.ts', "import 'node:fs'"],
    ['core/state/snapshot.ts', 'Date.now()'],
    ['contract/dates.ts', "import '#server/config.ts'"],
    ['demo/generate.ts', "import '#server/config.ts'"],
    ['server/main.ts', "import '#demo/generate.ts'"],
    ['server/http/mount.ts', "import '../store/writer.ts'"],
    ['server/services/content/text.ts', "import '../../http/check.ts'"],
    ['server/services/viewer/asker.ts', "import '../people/people.ts'"],
    ['server/services/viewer/asker.ts', "import '#core/base/numbering.ts'"],
    ['server/services/account/sign-in.test.ts', "import '../people/people.ts'"],
    ['server/worker/places.ts', "import '../services/viewer/asker.ts'"],
    ['web/workers/table.ts', "import '../api/api.ts'"],
    ['web/app/main.tsx', "import '#server/config.ts'"],
    ['web/features/teams/joining.ts', "import '../people/coming-in/addresses.ts'"],
    ['web/ui/Panel.tsx', "import '../store/store.ts'"],
    ['e2e/server.ts', "import '#server/config.ts'"],
  ])('%s: %s', async (file, line) => {
    expect(await faults(file, line)).toHaveLength(1)
  })
})

describe('what must pass', () => {
  test.each([
    ['core/access/evaluate.ts', "import '../levels/action.ts'"],
    ['server/services/content/text.ts', "import '../../store/writer.ts'"],
    ['server/services/people/people.ts', "import '../viewer/asker.ts'"],
    ['server/http/mount.ts', "import '../services/content/text.ts'"],
    ['web/features/teams/joining.ts', "import '../../ui/Panel.tsx'"],
    ['web/features/teams/joining.ts', "import '#core/levels/action.ts'"],
    ['demo/generate.ts', "import '#core/changes/judge.ts'"],
  ])('%s: %s', async (file, line) => {
    expect(await faults(file, line)).toEqual([])
  })
})

test('every folder that stands among others has its place', () => {
  for (const [path, order] of Object.entries(ordered))
    expect(foldersIn(path).toSorted()).toEqual(order.toSorted())
})
