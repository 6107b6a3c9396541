import { Type } from '@sinclair/typebox'
import { PlaceName } from './names.ts'
import { columnAccess, instant, personStatus } from '../terms.ts'
import { editRequest } from '../edit-requests.ts'
import { type View, oneOf, orNull, strict, view } from '../pieces.ts'

export const PartView = view('PartView', {
  actions: Type.Number(),
  through: oneOf('name', 'everyone', 'team', 'leads'),
  team: orNull(Type.String()),
  at: orNull(PlaceName),
  isHere: Type.Boolean(),
  by: orNull(Type.String()),
  since: instant,
  until: orNull(instant),
})
export type PartView = View<typeof PartView>

export const StepView = view('StepView', {
  kind: oneOf('limit', 'guest ceiling', 'draft', 'archive', 'bin', 'not active'),
  at: orNull(PlaceName),
  leaves: Type.Number(),
})
export type StepView = View<typeof StepView>

/** One place on the way down, or several that the reader cannot see as one. */
export const WayView = view('WayView', {
  place: orNull(PlaceName),
  actions: Type.Number(),
  isBroken: Type.Boolean(),
  /** What is given to the person there, and what limits leave of it. */
  given: Type.Number(),
  allows: orNull(Type.Number()),
})
export type WayView = View<typeof WayView>

/** The sum behind one person's access at one place. */
export const ExplanationView = view('ExplanationView', {
  person: Type.String(),
  place: Type.String(),
  status: personStatus,
  grants: Type.Array(PartView),
  keptOut: Type.Array(PartView),
  brokenAt: orNull(PlaceName),
  steps: Type.Array(StepView),
  result: Type.Number(),
  /** From the whole workspace down to the place: what the person has on the way, and where it changes. */
  way: Type.Array(WayView),
})
export type ExplanationView = View<typeof ExplanationView>

/** For each question, in its order: the actions, or `null` for what may not be asked or is not there. */
export const CheckedView = view('CheckedView', {
  revision: Type.Number(),
  answers: Type.Array(
    orNull(Type.Object({ actions: Type.Number(), column: Type.Optional(columnAccess) }, strict)),
  ),
})
export type CheckedView = View<typeof CheckedView>

export const RemedyView = view('RemedyView', {
  /** Ready to be previewed and applied. */
  edits: Type.Array(editRequest),
  /** One sentence an edit, as said to whoever does it. */
  words: Type.Array(Type.String()),
  /** How many actions at how many places it gives to anybody beyond what was asked. */
  beyond: Type.Number(),
  mayI: Type.Boolean(),
  /** Others who have the rights for it, as far as the asker knows them. */
  others: Type.Array(PlaceName),
})
export type RemedyView = View<typeof RemedyView>

/** The smallest sets of edits by which somebody could do what they may not. */
export const WhyNotView = view('WhyNotView', {
  revision: Type.Number(),
  /** They may already. */
  may: Type.Boolean(),
  /** False where the search was stopped before all was tried. */
  isComplete: Type.Boolean(),
  remedies: Type.Array(RemedyView),
})
export type WhyNotView = View<typeof WhyNotView>
