import { afterAll, beforeAll, expect, test } from 'vitest'
import { type Stage, stage } from './stage.ts'
import { startDemo } from './server.ts'
import type { Visitor } from './visitor.ts'

/** A server without a workspace: the first visit makes one. */
let empty: Stage
let visitor: Visitor

beforeAll(async () => {
  empty = await stage(() => startDemo({ empty: true }))
  visitor = await empty.arrive()
})

afterAll(() => empty.leave())

test('the first visit leads to creating the workspace and its Owner', async () => {
  await visitor.open('/')
  await visitor.sees('Create your workspace')
  expect(await visitor.barriers()).toEqual([])
  await visitor.fill('Name of the workspace', 'Night Ferry')
  await visitor.fill('Your name', 'Ulla Marsk')
  await visitor.fill('Your mail address', 'ulla@ferry.example')
  await visitor.fill('Password', 'password1234')
  await visitor.press('Create workspace')
  await visitor.sees('This password is too easy to guess.')
  await visitor.fill('Password', 'three lamps at the pier')
  await visitor.press('Create workspace')
  await visitor.sees('Night Ferry')
  await visitor.sees('My private folder')
})

test('a new workspace says what it needs first, and each step is gone once it is done', async () => {
  await visitor.sees('First steps')
  await visitor.sees('Share a place with somebody')
  expect(await visitor.barriers()).toEqual([])
  await visitor.follow('Create shared home')
  await visitor.fill('Name', 'Timetable')
  await visitor.pressRow('Create')
  // Its name is in the tree before its page is there.
  await visitor.sees('Grants')
  await visitor.open('/')
  await visitor.sees('Share Timetable with somebody')
  expect(await visitor.reads()).not.toContain('Create shared home\nThe top')
  await visitor.press('Hide')
  await visitor.misses('First steps')
  // Where one was is found again.
  await visitor.sees('Where you were')
})

test('there is no mailbox outside the demo, and signing out and in works', async () => {
  await visitor.open('/mailbox')
  await visitor.sees('The mailbox exists only in the demo.')
  await visitor.open('/')
  await visitor.pressOwn('Sign out')
  await visitor.sees('Mail address')
  expect(await visitor.barriers()).toEqual([])
  await visitor.signIn('ulla@ferry.example', 'three lamps at the pier')
  await visitor.sees('My private folder')
})
