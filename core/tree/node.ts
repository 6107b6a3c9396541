import type { NodeId, PersonId, SectionId, TeamId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'

/**
 * A place in the content tree. The root has no parent and is never shown as a place; homes stand
 * under it and nothing else does.
 */
export interface ContentNode {
  readonly id: NodeId
  readonly parent: NodeId | null
  readonly kind: NodeKind
  readonly name: string
  readonly note: string
  readonly maker: PersonId
  readonly madeAt: Instant
  /** Place among its siblings; equal ones are ordered by name, rows by when they were made. */
  readonly order: number
  /** Of a row, the section of its board that it stands in; one that is gone counts as none. */
  readonly section: SectionId | null
  /**
   * Of a row, its number on its board, which no other row there has or ever had; of a board, the last that it gave, which
   * nothing takes back. `null` for all else.
   */
  readonly serial: number | null
  /** Set on what stands directly under the root, and only there. */
  readonly home: Home | null
  /** Set where inheritance is broken: grants from above do not reach this node. */
  readonly broken: Mark | null
  readonly draft: boolean
  readonly archived: boolean
  /** Since when; `null` where it is not, or nobody knows any more. */
  readonly archivedAt: Instant | null
  /** Set on what was put in the bin, and not on what lies in it. After thirty days it is deleted for good. */
  readonly binned: Mark | null
  readonly web: 'published' | 'excluded' | null
}

/** What most places are: nothing is noted, broken, hidden or closed at them. */
export const plainNode = {
  note: '',
  home: null,
  broken: null,
  draft: false,
  archived: false,
  archivedAt: null,
  binned: null,
  web: null,
} as const satisfies Partial<ContentNode>

export type NodeKind = 'root' | 'folder' | 'board' | 'row' | 'page' | 'file'

export type Home =
  | { readonly of: 'team'; readonly team: TeamId }
  | { readonly of: 'person'; readonly person: PersonId }
  | { readonly of: 'shared' }

/** By whom something was done to a place, and when. */
export interface Mark {
  readonly by: PersonId
  readonly at: Instant
}

/** Every walk up from a place ends soon. */
export const deepest = 512

const mayHold: Readonly<Record<NodeKind, readonly NodeKind[]>> = {
  root: ['folder'],
  folder: ['folder', 'board', 'page', 'file'],
  board: ['row'],
  row: ['page', 'file'],
  page: ['page', 'board', 'file'],
  file: [],
}

export const kindsWithin = (parent: NodeKind): readonly NodeKind[] => mayHold[parent]
