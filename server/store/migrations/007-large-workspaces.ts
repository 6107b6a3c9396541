import type { Migration } from './list.ts'

/*
 * Most places are plain: nothing is noted, broken, hidden or closed at them. Those that are not are found without
 * looking at every place; loading.ts asks for them in the same words. And where a row goes, what may refer to it is
 * looked up: without an index that is a look at every place and every grant.
 */
const statements = [
  `CREATE INDEX "nodesSpecial" ON nodes (workspace)
    WHERE note <> '' OR home IS NOT NULL OR broken IS NOT NULL OR draft OR archived
    OR binned IS NOT NULL OR web IS NOT NULL`,
  'CREATE INDEX "nodesParent" ON nodes (workspace, parent)',
  'CREATE INDEX "nodesMaker" ON nodes (workspace, maker)',
  'CREATE INDEX "grantsNode" ON grants (workspace, node)',
  'CREATE INDEX "grantsBy" ON grants (workspace, "by")',
  'CREATE INDEX "limitsNode" ON limits (workspace, node)',
]

export const largeWorkspaces: Migration = {
  name: '007-large-workspaces',
  up: async database => {
    for (const statement of statements) await database.query(statement)
  },
}
