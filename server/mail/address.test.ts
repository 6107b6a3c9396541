import { expect, test } from 'vitest'
import { isMail } from './address.ts'

test.each([
  'a@b.example',
  'o’neil@b.example'.replace('’', "'"),
  'jörg@küste.example',
  '用户@例子.example',
  'a.b+c@x-y.example',
])('%s is an address', text => {
  expect(isMail(text)).toBe(true)
})

test.each([
  'a',
  '@b.example',
  'a@',
  'a@b',
  'a@b..example',
  'a@.example',
  'a..b@c.example',
  'a b@c.example',
  'a@b.example, c@d.example',
  'a@b.example\nBcc: c@d.example',
  '"a"@b.example',
  'a@[127.0.0.1]',
  'a@b.example/x',
  'a@b.example:25',
  `${'a'.repeat(65)}@b.example`,
  'a@-b.example',
])('%j is none', text => {
  expect(isMail(text)).toBe(false)
})
