import type { Action } from '#core/levels/action.ts'

/** What an action lets one do, after “to” or “can”. */
export const doing: Readonly<Record<Action, string>> = {
  see: 'open it',
  copy: 'copy from it',
  comment: 'comment',
  add: 'add things',
  change: 'change what is there',
  remove: 'archive and remove',
  arrange: 'arrange what is in it',
  share: 'give and take access',
  seal: 'break inheritance',
  publish: 'publish it',
}
