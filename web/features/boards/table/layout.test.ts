import fc from 'fast-check'
import { expect, test } from 'vitest'
import { type Line, linesOf, type RowTarget } from './layout.ts'

const anyGroups = fc
  .array(fc.nat({ max: 4 }), { maxLength: 5 })
  .map(counts => counts.map((count, index) => ({ key: `g${index}`, count })))

test('lines are those that one would write down one after another', () => {
  fc.assert(
    fc.property(
      anyGroups,
      fc.boolean(),
      fc.boolean(),
      fc.subarray(['g0', 'g2', 'g4']),
      (groups, hasHeads, takesRows, some) => {
        const folded = new Set(some)
        const lines = linesOf(groups, { hasHeads, takesRows, folded })
        const written: Line[] = []
        let position = 0
        for (const [index, group] of groups.entries()) {
          if (hasHeads) written.push({ of: 'group', group, index })
          const isFolded = hasHeads && folded.has(group.key)
          for (let nth = 0; nth < group.count; nth += 1, position += 1)
            if (!isFolded) written.push({ of: 'row', position })
          if (takesRows && !isFolded) written.push({ of: 'new row', group })
        }
        expect(lines.count).toBe(written.length)
        expect(Array.from({ length: lines.count }, (_, line) => lines.at(line))).toEqual(written)
        expect(lines.at(lines.count)).toBeUndefined()
        for (let row = 0; row < position; row += 1) {
          const line = written.findIndex(each => each.of === 'row' && each.position === row)
          expect(lines.lineOf(row)).toBe(line === -1 ? undefined : line)
        }
      },
    ),
  )
})

/** The rows of each group once some were put elsewhere. */
function putIn(
  groups: readonly string[][],
  rows: readonly string[],
  { group, before }: RowTarget,
): string[][] {
  const flat = groups.flat()
  const target = before === null ? undefined : flat[before]
  const rest = groups.map(each => each.filter(row => !rows.includes(row)))
  return rest.map((each, index) => {
    if (`g${index}` !== group.key) return each
    const at = target === undefined ? each.length : each.indexOf(target)
    return [...each.slice(0, at), ...rows, ...each.slice(at)]
  })
}

test('rows go to where they are let go of, and by steps through all groups', () => {
  fc.assert(
    fc.property(anyGroups, fc.boolean(), fc.nat(), fc.nat({ max: 2 }), (counts, takesRows, from, more) => {
      let row = 0
      const groups = counts.map(({ count }) => Array.from({ length: count }, () => `r${row++}`))
      const lines = linesOf(counts, { hasHeads: true, takesRows, folded: new Set() })
      const flat = groups.flat()
      if (flat.length === 0) return
      const top = from % flat.length
      const bottom = Math.min(flat.length - 1, top + more)
      const moved = flat.slice(top, bottom + 1)
      const isOfOne = groups.some(each => moved.every(one => each.includes(one)))
      for (const step of [-1, 1] as const) {
        const target = lines.stepOf({ top, bottom }, step)
        if (!isOfOne) expect(target).toBeUndefined()
        if (target === undefined) continue
        const now = putIn(groups, moved, target)
        const isElsewhere = JSON.stringify(now) !== JSON.stringify(groups)
        expect([isElsewhere, now.flat().toSorted()]).toEqual([true, flat.toSorted()])
        const shift = now.flat().indexOf(moved[0] ?? '') - top
        // One further in its group, or on the other side of a head.
        expect([0, step]).toContain(shift)
      }
      for (let line = 0; line < lines.count; line += 1)
        for (const isLower of [false, true]) {
          const target = lines.putAt(line, isLower)
          const at = lines.at(line)
          if (target === undefined || at === undefined) throw new Error('a line takes no rows')
          expect(target.line === line || target.line === line + 1).toBe(true)
          if (at.of === 'row') {
            const under = flat[at.position] ?? ''
            const index = groups.findIndex(each => each.includes(under))
            expect(target.group.key).toBe(`g${index}`)
            const now = putIn(groups, ['new'], target)[index] ?? []
            expect(now.indexOf('new') - now.indexOf(under)).toBe(isLower ? 1 : -1)
          } else expect(target.group).toBe(at.group)
        }
    }),
  )
})
