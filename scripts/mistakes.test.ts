import { existsSync, readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { expect, test } from 'vitest'
import { mistakes } from './mistakes.ts'

const root = resolve(import.meta.dirname, '..')

/** A run of them takes an hour: that one of them is nowhere to be planted any more is seen at once. */
test('every planted mistake has its place, changes it, and names a test that is there', () => {
  const wrong = mistakes.flatMap(({ mistake, file, find, put, by }) => {
    const path = resolve(root, file)
    const isPlanted = existsSync(path) && readFileSync(path, 'utf8').includes(find) && find !== put
    return isPlanted && (by === undefined || existsSync(resolve(root, by))) ? [] : [mistake]
  })
  expect(wrong).toEqual([])
})
