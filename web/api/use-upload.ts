import type { TreeItem } from '#contract/views/content.ts'
import { counted } from '#core/words/english.ts'
import { api } from './api.ts'
import { type Chosen, sendFiles } from './uploader.ts'
import { useChange } from './use-change.ts'
import { useHere } from './use-here.ts'
import { useAppDispatch } from '../store/store.ts'
import { type ChosenFile, foldersFor, keyOf } from './chosen-files.ts'

export interface UploadTo {
  /** A place that files go into; or a file, of which one is the next version. */
  readonly place: string
  readonly name: string
  readonly isVersion: boolean
  /** Called with each file that came of it. */
  readonly onMade?: (file: string) => void
}

/** Sends chosen files: first their folders are made, by one change, so that all lies as it did. */
export function useUpload({
  place,
  name,
  isVersion,
  onMade,
}: UploadTo): (chosen: readonly ChosenFile[]) => Promise<void> {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const { apply } = useChange(slug)
  const within = async (id: string): Promise<readonly TreeItem[]> => {
    const children = dispatch(api.endpoints.children.initiate({ slug, id }, { forceRefetch: true }))
    const { data = [] } = await children
    children.unsubscribe()
    return data
  }
  return async chosen => {
    if (chosen.length === 0) return
    if (isVersion) {
      const [first] = chosen
      if (first !== undefined)
        sendFiles(dispatch, [{ slug, place, name, path: '', isVersion, existing: null, file: first.file }])
      return
    }
    const known = await knownIn(place, chosen, within)
    const { edits, placeOf } = foldersFor(chosen, place, known.folders)
    const { applied } =
      edits.length === 0
        ? { applied: { made: {} as Readonly<Record<string, string>> } }
        : await apply(edits, `${counted(edits.length, 'folder is', 'folders are')} created.`)
    if (applied === undefined) return
    sendFiles(
      dispatch,
      chosen.map(({ file, folders }): Chosen => {
        const key = keyOf(folders)
        const planned = placeOf.get(key) ?? place
        const existing = known.files.get(`${key}/${file.name}`) ?? null
        const of = { slug, name: file.name, path: key, isVersion: false, existing, file, onMade }
        return { ...of, place: applied.made[planned] ?? planned }
      }),
    )
  }
}

interface Known {
  /** By their path, the folders that are there. */
  readonly folders: ReadonlyMap<string, string>
  /** By their path and name, the files. */
  readonly files: ReadonlyMap<string, string>
}

/** What of the folders and files to come is there already. */
async function knownIn(
  top: string,
  chosen: readonly ChosenFile[],
  within: (id: string) => Promise<readonly TreeItem[]>,
): Promise<Known> {
  const folders = new Map<string, string>()
  const files = new Map<string, string>()
  const wanted = new Set(
    chosen.flatMap(each => each.folders.map((_, depth) => keyOf(each.folders.slice(0, depth + 1)))),
  )
  const waiting: (readonly [string, string])[] = [['', top]]
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    const [key, id] = next
    for (const each of await within(id)) {
      const path = key === '' ? each.name : `${key}/${each.name}`
      if (each.kind === 'file') files.set(`${key}/${each.name}`, each.id)
      if (each.kind !== 'folder' || !wanted.has(path) || folders.has(path)) continue
      folders.set(path, each.id)
      waiting.push([path, each.id])
    }
  }
  return { folders, files }
}
