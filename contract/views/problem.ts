import { Type } from '@sinclair/typebox'
import { CellConflict, CellRefusal } from './boards.ts'
import { PreviewView } from './impact.ts'
import { action, privilege } from '../terms.ts'
import { type View, strict, view } from '../pieces.ts'

/** Every refusal that the server can send (RFC 9457). Codes are permanent; `type` is made from them. */
export const Problem = view('Problem', {
  type: Type.String(),
  title: Type.String(),
  status: Type.Number(),
  /** What would work instead. */
  detail: Type.String(),
  /** The privilege that was lacking: it can be asked for. */
  lacks: Type.Optional(privilege),
  /** The place at which a level was lacking, and the level: it can be asked for there. */
  asks: Type.Optional(Type.Object({ place: Type.String(), level: Type.String(), action: action }, strict)),
  /** For a change set: the edit that was refused, counted from 0. */
  edit: Type.Optional(Type.Number()),
  /** For a change set that would now do something else than its author saw: what it would do. */
  preview: Type.Optional(PreviewView),
  /** What others did meanwhile, as far as the author may know it. */
  meanwhile: Type.Optional(Type.Array(Type.String())),
  /** For cells that somebody else wrote meanwhile: what stands there now. */
  conflicts: Type.Optional(Type.Array(CellConflict)),
  /** For cells that cannot be written: the first of them, and how many there are. */
  cells: Type.Optional(Type.Array(CellRefusal)),
  refused: Type.Optional(Type.Number()),
  /** For input that does not fit: where, and what is wrong there. */
  faults: Type.Optional(Type.Array(Type.Object({ at: Type.String(), message: Type.String() }, strict))),
})
export type Problem = View<typeof Problem>
