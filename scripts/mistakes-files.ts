import type { Mistake } from './mistakes.ts'

const files = 'server/services/content/files.test.ts'
const previews = 'server/services/content/previews.test.ts'
const zips = 'server/services/content/zip.test.ts'
const search = 'server/services/search/search.test.ts'
const backups = 'server/backup/backup.test.ts'

/** Mistakes in how files come in, are shown and taken, and in what is found: each names the tests that catch it. */
export const fileMistakes: readonly Mistake[] = [
  {
    mistake: 'who may only look is handed the bytes',
    file: 'server/services/content/files.ts',
    find: "  if (!mayTake) throw problemOf('look-only')\n",
    put: '',
    by: files,
  },
  {
    mistake: 'earlier versions are shown to who may not change the file',
    file: 'server/services/content/files.ts',
    find: 'version === undefined ? fileAt(asker, id) : changeableFile(asker, id)',
    put: 'fileAt(asker, id)',
    by: previews,
  },
  {
    mistake: 'previews are marked for who may take the file, and for nobody else',
    file: 'server/services/content/previews.ts',
    find: 'if (mayTake || !workspaceOf',
    put: 'if (!mayTake || !workspaceOf',
    by: previews,
  },
  {
    mistake: 'sound is offered to who may only look',
    file: 'server/services/content/previews.ts',
    find: "fault: at.mayTake ? null : 'look-only'",
    put: 'fault: null',
    by: previews,
  },
  {
    mistake: 'what a browser could run is shown by it',
    file: 'server/http/send-file.ts',
    find: "shown.test(kind) ? 'inline' : 'attachment'",
    put: "kind === '' ? 'attachment' : 'inline'",
    by: previews,
  },
  {
    mistake: 'what may only be looked at goes into a ZIP',
    file: 'server/services/content/zip.ts',
    find: "if (isSeen && has(actions, 'copy')) taken.push",
    put: 'if (isSeen) taken.push',
    by: zips,
  },
  {
    mistake: 'a ZIP tells the name of a folder that is not seen',
    file: 'server/services/content/zip.ts',
    find: 'const path = isSeen ? names(next.path, node) : next.path',
    put: 'const path = names(next.path, node)',
    by: zips,
  },
  {
    mistake: 'a file goes on coming in after the right to it ended',
    file: 'server/services/content/uploads.ts',
    find: '  if (refusal !== undefined) throw problemFor(asker, refusal)\n  if (offset',
    put: '  if (offset',
    by: files,
  },
  {
    mistake: 'what is to come does not count against the quota',
    file: 'server/services/content/storage.ts',
    find: '          more,\n',
    put: '          more: 0 * more,\n',
    by: files,
  },
  {
    mistake: 'the storage view names places that are not seen',
    file: 'server/services/content/storage-view.ts',
    find: 'place: maySee(asker, id)',
    put: 'place: id',
    by: 'server/services/content/storage.test.ts',
  },
  {
    mistake: 'a backup takes files as they are, whatever they should be',
    file: 'server/backup/archive.ts',
    find: 'if (found.get(placeOf(name)) !== hash)',
    put: "if (hash === '')",
    by: backups,
  },
  {
    mistake: 'a backup holds uploads whose bytes it does not have',
    file: 'server/backup/backup.ts',
    find: 'name === mainDatabase ? copyWithoutUploads : copyDatabase',
    put: "name === '' ? copyWithoutUploads : copyDatabase",
    by: backups,
  },
  {
    mistake: 'people are found by an address that is not told',
    file: 'server/services/search/people-found.ts',
    find: '(tellsMail && beginsIn(mail, word))',
    put: 'beginsIn(mail, word)',
    by: search,
  },
  {
    mistake: 'who sees the root seems to see all, whatever is closed to them',
    file: 'server/worker/visible-documents.ts',
    find: '? -1 : 0',
    put: '? 0 : 0',
    by: 'server/worker/visible-documents.test.ts',
  },
  {
    mistake: 'a word is found in the middle of another',
    file: 'core/base/fold-words.ts',
    find: 'if (!endsInWord.test(',
    put: 'if (at >= 0 || !endsInWord.test(',
    by: 'core/base/fold-words.test.ts',
  },
  {
    mistake: 'what was written again is found by its old words',
    file: 'server/store/dialects/sqlite/search-writing.ts',
    find: "    ['texts', 'rowid'],\n",
    put: '',
    by: 'server/store/dialects/sqlite/search.test.ts',
  },
  {
    mistake: 'what somebody changed can be asked for by who does not know them',
    file: 'server/services/search/search.ts',
    find: 'by !== undefined && !knowsPerson',
    put: "by === '' && !knowsPerson",
    by: search,
  },
  {
    mistake: 'words of what is deleted for good stay in the index',
    file: 'server/services/search/documents.ts',
    find: '...gone.map(each => ({ workspace, ...each })), ',
    put: '',
    by: search,
  },
  {
    mistake: 'how long a search takes tells of what is hidden',
    file: 'server/services/search/search.ts',
    find: 'if (!seesAll) await',
    put: 'if (view.indexed < 0) await',
    by: search,
  },
]
