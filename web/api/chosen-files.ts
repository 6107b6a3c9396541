import type { EditRequest } from '#contract/edit-requests.ts'

/** Files as somebody drops, pastes or picks them, with the folders that they lie in. */
export interface ChosenFile {
  readonly file: File
  /** The folders above it, outermost first. */
  readonly folders: readonly string[]
}

export const fromList = (list: FileList | readonly File[]): ChosenFile[] =>
  Array.from(list, file => ({ file, folders: file.webkitRelativePath.split('/').slice(0, -1) }))

/** What is dropped may be folders: they are opened here. Has to be called while the event lasts. */
export async function fromDrop(data: DataTransfer): Promise<ChosenFile[]> {
  const entries = Array.from(data.items, item => item.webkitGetAsEntry())
  // A browser that knows no entries gives files alone.
  if (entries.every(each => each === null)) return fromList(data.files)
  const found: ChosenFile[] = []
  for (const entry of entries) if (entry !== null) await open(entry, [], found)
  return found
}

async function open(entry: FileSystemEntry, folders: readonly string[], found: ChosenFile[]): Promise<void> {
  if (isFile(entry)) {
    const file = await new Promise<File | undefined>(resolve => {
      // What cannot be read is left out, as if it were not there.
      entry.file(resolve, () => resolve(undefined))
    })
    if (file !== undefined && !isHidden(file.name)) found.push({ file, folders })
    return
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  for (;;) {
    const some = await new Promise<readonly FileSystemEntry[]>(resolve =>
      reader.readEntries(resolve, () => resolve([])),
    )
    if (some.length === 0) return
    for (const each of some) await open(each, [...folders, entry.name], found)
  }
}

const isFile = (entry: FileSystemEntry): entry is FileSystemFileEntry => entry.isFile

/** What systems put beside people's files. */
const isHidden = (name: string): boolean => /^(\.|Thumbs\.db$|desktop\.ini$)/i.test(name)

export interface FolderPlan {
  readonly edits: readonly Extract<EditRequest, { kind: 'node.create' }>[]
  /** By the folders of a file, the place into which it goes: one that is there, or `new:` for one that is made. */
  readonly placeOf: ReadonlyMap<string, string>
}

export const keyOf = (folders: readonly string[]): string => folders.join('/')

/** The folders that are to be made so that all lies as it did: those that are there already are used again. */
export function foldersFor(
  chosen: readonly ChosenFile[],
  top: string,
  known: ReadonlyMap<string, string>,
): FolderPlan {
  const placeOf = new Map<string, string>([['', top], ...known])
  const edits: Extract<EditRequest, { kind: 'node.create' }>[] = []
  for (const { folders } of chosen)
    for (let depth = 1; depth <= folders.length; depth += 1) {
      const key = keyOf(folders.slice(0, depth))
      if (placeOf.has(key)) continue
      const node = `new:folder-${edits.length}`
      const parent = placeOf.get(keyOf(folders.slice(0, depth - 1))) ?? top
      edits.push({ kind: 'node.create', node, parent, as: 'folder', name: folders[depth - 1] ?? '' })
      placeOf.set(key, node)
    }
  return { edits, placeOf }
}
