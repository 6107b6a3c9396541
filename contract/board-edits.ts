import { Type } from '@sinclair/typebox'
import { columnKind, columnSettings, viewState } from './boards.ts'
import { made, name, orNull, principals, ref } from './pieces.ts'

/** What edits of a board's columns, sections and shared views hold. */
export const boardEdits = {
  'column.create': {
    column: made('columns'),
    board: ref('nodes'),
    name,
    as: columnKind,
    settings: columnSettings,
    order: Type.Number(),
    viewers: orNull(principals),
    editors: orNull(principals),
  },
  'column.change': {
    column: ref('columns'),
    name: Type.Optional(name),
    as: Type.Optional(columnKind),
    settings: Type.Optional(columnSettings),
    order: Type.Optional(Type.Number()),
    viewers: Type.Optional(orNull(principals)),
    editors: Type.Optional(orNull(principals)),
  },
  'column.delete': { column: ref('columns') },
  'section.create': { section: made('sections'), board: ref('nodes'), name, order: Type.Number() },
  'section.change': {
    section: ref('sections'),
    name: Type.Optional(name),
    order: Type.Optional(Type.Number()),
  },
  'section.delete': { section: ref('sections') },
  'view.create': {
    view: made('boardViews'),
    board: ref('nodes'),
    name,
    order: Type.Number(),
    state: viewState,
  },
  'view.change': {
    view: ref('boardViews'),
    name: Type.Optional(name),
    order: Type.Optional(Type.Number()),
    state: Type.Optional(viewState),
  },
  'view.delete': { view: ref('boardViews') },
} as const
