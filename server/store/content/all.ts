import { comments } from './comments.ts'
import type { ContentKind } from './kind.ts'
import { fileVersions } from './file-versions.ts'
import { pageText } from './page-text.ts'
import { rowCells } from './row-cells.ts'

/** Every kind of content that is written in places. A new kind is a file and a line here. */
export const contentKinds: readonly ContentKind[] = [pageText, fileVersions, rowCells, comments]
