import { type TLiteral, Type } from '@sinclair/typebox'
import { kindNames, type KindName } from '#core/boards/kind.ts'
import { footChoices } from '#core/boards/kinds/number.ts'
import { marks } from '#core/boards/kinds/state.ts'
import { optionsAtMost } from '#core/boards/options.ts'
import { conditionsAtMost, layouts, sortsAtMost } from '#core/boards/view.ts'
import { kind, line, orNull, strict, type View } from './pieces.ts'

/** What columns and views are made of, as they go over the wire. What fits together says the core. */

const wordsOf = <W extends string>(words: readonly W[]) =>
  Type.Union(words.map(each => kind(each))) as unknown as TLiteral<W>

export const columnKind = wordsOf<KindName>(kindNames)

const optionId = Type.String({ pattern: '^[\\w-]{1,40}$' })
const optionName = line(100, 1)

export const columnSettings = Type.Union([
  Type.Object(
    { places: Type.Integer({ minimum: 0, maximum: 6 }), unit: line(20), foot: wordsOf(footChoices) },
    strict,
  ),
  Type.Object({ prefix: line(20) }, strict),
  Type.Object(
    {
      states: Type.Array(
        Type.Object(
          { id: optionId, name: optionName, mark: wordsOf(marks), isFinished: Type.Boolean() },
          strict,
        ),
        { maxItems: optionsAtMost },
      ),
    },
    strict,
  ),
  Type.Object(
    {
      tags: Type.Array(Type.Object({ id: optionId, name: optionName }, strict), { maxItems: optionsAtMost }),
    },
    strict,
  ),
  Type.Object({ isSeveral: Type.Boolean() }, strict),
  Type.Object({ withTime: Type.Boolean() }, strict),
  Type.Object({}, { ...strict, maxProperties: 0 }),
])
/** Those of one kind: what it says about them says core/boards/kinds. */
// Some kinds have none.
// eslint-disable-next-line @typescript-eslint/no-generated-empty-object-type
export type ColumnSettings = View<typeof columnSettings>

/** A column's id, or what every board has besides its columns. */
export const columnOrPart = Type.String({ pattern: '^[a-z0-9-]{1,40}$' })

const condition = Type.Object(
  { column: columnOrPart, word: line(40, 1), given: Type.Array(line(200), { maxItems: 50 }) },
  strict,
)
const join = wordsOf(['all', 'any'])

export const shownColumns = Type.Array(
  Type.Object({ column: columnOrPart, width: orNull(Type.Integer({ minimum: 40, maximum: 1000 })) }, strict),
  { minItems: 1, maxItems: 100 },
)

export const viewState = Type.Object(
  {
    layout: wordsOf(layouts),
    by: orNull(columnOrPart),
    where: Type.Object(
      {
        join,
        of: Type.Array(
          Type.Union([
            condition,
            Type.Object(
              { join, of: Type.Array(condition, { minItems: 1, maxItems: conditionsAtMost }) },
              strict,
            ),
          ]),
          { maxItems: conditionsAtMost },
        ),
      },
      strict,
    ),
    sort: Type.Array(Type.Object({ column: columnOrPart, isDown: Type.Boolean() }, strict), {
      maxItems: sortsAtMost,
    }),
    group: orNull(columnOrPart),
    columns: orNull(shownColumns),
  },
  strict,
)

/** In the form of its column's kind. */
export const cellValue = Type.Union([
  Type.String({ maxLength: 50_000, cleaned: 'text' }),
  Type.Number(),
  kind(true as never) as unknown as TLiteral<true>,
  Type.Array(Type.String({ maxLength: 60 }), { maxItems: 200 }),
  Type.Null(),
])
