import { lacksWatch } from '../changes/edits/watch.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const watches: RecordKind<'watches'> = {
  fields: { id: 'text', person: 'text', node: 'text' },
  indexes: { person: row => row.person, node: row => row.node },
  references: [
    id('person', 'persons', { whenGone: 'goes along', index: 'person' }),
    id('node', 'nodes', { whenGone: 'goes along', index: 'node' }),
  ],
  rights: lacksWatch,
  // What somebody wants to be told is nobody else's.
  about: () => undefined,
  words: () => 'changed their own notifications',
}
