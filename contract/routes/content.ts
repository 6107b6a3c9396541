import { Type } from '@sinclair/typebox'
import { pageQuery, placesQuery, textRequest } from '../requests.ts'
import type { Route } from '../route.ts'
import { ColumnAccessView } from '../views/access.ts'
import { ColumnView } from '../views/boards.ts'
import { NodeView, PlaceChangeView, PlaceHit, TextVersionView, TextView, TreeItem } from '../views/content.ts'
import { pageOf } from '../views/page.ts'

const seeing = 'To see the place.'

/** Places and what is written in them. */
export const contentRoutes = {
  node: { does: 'A place, with what lies right in it.', needs: seeing, answer: NodeView },
  children: { does: 'What lies right in a place.', needs: seeing, answer: Type.Array(TreeItem) },
  changesWithin: {
    does: 'Who changed each place right in this one last, and when.',
    needs: seeing,
    answer: Type.Array(PlaceChangeView),
  },
  moveTargets: {
    does: 'Finds places into which this one can be moved.',
    needs: seeing,
    query: placesQuery,
    answer: Type.Array(PlaceHit),
  },
  columns: {
    does: 'The columns of a board, or of the board of a row.',
    needs: seeing,
    answer: Type.Array(ColumnView),
  },
  peopleOfColumn: {
    does: 'Who may see a column in a row, and who may edit it.',
    needs: 'To share at the place.',
    query: pageQuery,
    answer: pageOf('ColumnAccessPage', ColumnAccessView),
  },
  text: { does: 'What is written on a page.', needs: 'To read the place.', answer: TextView },
  saveText: {
    does: 'Writes a new version of a page, of the one that its author had before.',
    needs: 'To change the place.',
    body: textRequest,
    answer: TextView,
  },
  textVersions: {
    does: 'Who wrote which version of a page when, the newest first.',
    needs: 'To change the place.',
    answer: Type.Array(TextVersionView),
  },
  textVersion: {
    does: 'What was written in one version of a page.',
    needs: 'To change the place.',
    answer: TextView,
  },
} as const satisfies Readonly<Record<string, Route>>
