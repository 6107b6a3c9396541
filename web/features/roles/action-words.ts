import type { Action } from '#core/levels/action.ts'

/** What an action lets one do, after “to”. */
export const actionWords: Readonly<Record<Action, string>> = {
  see: 'open and read it',
  copy: 'copy, export and print',
  comment: 'comment',
  add: 'add things and change one’s own',
  change: 'change what is there',
  remove: 'archive and move to the bin',
  arrange: 'arrange what is in it',
  share: 'share: give and remove access',
  seal: 'break inheritance and delete for good',
  publish: 'publish to the web',
}
