import { useState } from 'react'
import { Link } from 'react-router'
import type { StorageView, StoredFile } from '#contract/views/storage.ts'
import { counted } from '#core/words/english.ts'
import { sizeWords } from '#core/words/sizes.ts'
import { useStorageQuery } from '../../api/files.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { FilterWords } from '../../ui/FilterWords.tsx'
import { NotYet } from '../../ui/NotYet.tsx'

const lists = ['Largest files', 'Not used for a year'] as const

/** What takes the room: as a whole, by kind, by where it lies, by who put it there, and file by file. */
export function Storage() {
  const { slug } = useHere()
  const { data: storage, error } = useStorageQuery(slug, { refetchOnMountOrArgChange: true })
  const [list, setList] = useState<(typeof lists)[number]>('Largest files')
  if (error !== undefined) return <NotYet error={error} />
  if (storage === undefined)
    return (
      <p aria-busy className="quiet">
        It is being added up …
      </p>
    )
  const { kinds, homes, people, largest, unused } = storage
  return (
    <div className="grid gap-6">
      <Whole storage={storage} />
      <div className="grid items-start gap-x-8 gap-y-5 md:grid-cols-2 xl:grid-cols-3">
        <Shares
          title="Kinds"
          rows={kinds.map(each => ({ ...each, key: each.kind, name: kindWords[each.kind] }))}
        />
        <Shares
          title="Homes"
          rows={homes.map(each => ({
            ...each,
            key: each.id ?? each.of,
            name:
              each.of === 'person'
                ? 'Private folders, all together'
                : (each.name ??
                  (each.of === 'team' ? 'A team that you do not know' : 'A home that you cannot open')),
            note: each.of === 'team' ? 'team home' : '',
          }))}
        />
        <Shares
          title="Uploaded by"
          rows={people.map(each => ({ ...each, key: each.id ?? '', name: each.name ?? 'others' }))}
        />
      </div>
      <section aria-label="Files">
        <FilterWords label="Which files" words={lists} chosen={list} onChoose={setList} />
        {list === 'Largest files' ? (
          <FileTable files={largest} nothing="No files have been uploaded yet." />
        ) : (
          <>
            <p className="quiet mt-2 text-sm">
              {counted(unused.files, 'file', 'files')} that nobody opened or changed for a year:{' '}
              {sizeWords(unused.bytes)} in all.
            </p>
            <FileTable files={unused.largest} nothing="Every file was used in the last year." />
          </>
        )}
      </section>
    </div>
  )
}

const kindWords: Readonly<Record<StorageView['kinds'][number]['kind'], string>> = {
  pictures: 'Pictures',
  documents: 'PDF and documents',
  texts: 'Texts and tables',
  sound: 'Sound',
  film: 'Film',
  packed: 'Packed files',
  other: 'Others',
}

/** With more than this of a quota used it is said. */
const nearlyFull = 0.9

function Whole({ storage: { used, coming, stored, quota, files } }: { readonly storage: StorageView }) {
  const share = quota === null || quota === 0 ? 0 : used / quota
  return (
    <section aria-label="All files">
      <p className="text-lg">
        <strong>{sizeWords(used)}</strong> {quota === null ? 'used, no quota' : `of ${sizeWords(quota)} used`}{' '}
        <span className="quiet text-base">by {counted(files, 'file', 'files')} with all their versions</span>
      </p>
      {quota !== null && (
        <div
          role="meter"
          aria-label="Used of the quota"
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.min(100, Math.round(share * 100))}
          className="my-2 h-4 border border-base-content"
        >
          <div
            className={`h-full ${share > nearlyFull ? 'bg-warning' : 'bg-primary'}`}
            style={{ width: `${Math.min(100, share * 100)}%` }}
          />
        </div>
      )}
      {share > nearlyFull && (
        <p role="alert" className="text-warning">
          {share >= 1 ? 'The quota is used up: uploads are refused.' : 'The quota is nearly used up.'} Delete
          large or unused files for good, keep fewer versions, or raise the quota.
        </p>
      )}
      <p className="quiet text-sm">
        {sizeWords(stored)} on the disk: what is the same is kept once.
        {coming > 0 && ` ${sizeWords(coming)} of it is being uploaded.`}
      </p>
    </section>
  )
}

interface ShareRow {
  readonly key: string
  readonly name: string
  readonly note?: string
  readonly bytes: number
  readonly files: number
}

const shownAtMost = 8

/** Who or what takes how much, the most first, each with its bar. */
function Shares({ title, rows }: { readonly title: string; readonly rows: readonly ShareRow[] }) {
  const [isWhole, setWhole] = useState(false)
  const most = Math.max(1, ...rows.map(each => each.bytes))
  const shown = isWhole ? rows : rows.slice(0, shownAtMost)
  return (
    <section aria-label={title} className="min-w-0">
      <h3 className="mb-1 border-b border-base-content font-bold">{title}</h3>
      {rows.length === 0 && <p className="quiet">Nothing yet.</p>}
      <ul>
        {shown.map(({ key, name, note = '', bytes, files }) => (
          <li key={key} className="py-1">
            <p className="flex justify-between gap-3">
              <span className="min-w-0 break-words">
                {name} {note !== '' && <span className="quiet text-sm">{note}</span>}
              </span>
              <span className="shrink-0 tabular-nums">
                {sizeWords(bytes)} <span className="quiet text-sm">{counted(files, 'file', 'files')}</span>
              </span>
            </p>
            <span aria-hidden className="block h-1.5 bg-base-300">
              <span className="block h-full bg-primary" style={{ width: `${(100 * bytes) / most}%` }} />
            </span>
          </li>
        ))}
      </ul>
      {rows.length > shownAtMost && (
        <button type="button" className="btn-inline mt-1 text-sm" onClick={() => setWhole(!isWhole)}>
          {isWhole ? 'Show fewer' : `Show all ${rows.length}`}
        </button>
      )}
    </section>
  )
}

function FileTable({ files, nothing }: { readonly files: readonly StoredFile[]; readonly nothing: string }) {
  const { slug } = useHere()
  if (files.length === 0) return <p className="quiet py-2">{nothing}</p>
  return (
    <table className="sheet mt-2">
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col" className="text-right">
            Size
          </th>
          <th scope="col" className="text-right max-sm:hidden">
            Versions
          </th>
          <th scope="col" className="max-md:hidden">
            Changed
          </th>
          <th scope="col" className="max-md:hidden">
            Opened
          </th>
        </tr>
      </thead>
      <tbody>
        {files.map(({ place, bytes, versions, changedAt, openedAt }, index) => (
          <tr key={place?.id ?? index}>
            <td className="break-words">
              {place === null ? (
                <span className="quiet">A file that you cannot open</span>
              ) : (
                <>
                  <Link className="hover:underline" to={`/at/${slug}/content/${place.id}`}>
                    {place.name}
                  </Link>{' '}
                  <span className="quiet text-sm">{place.path}</span>
                </>
              )}
            </td>
            <td className="text-right whitespace-nowrap">{sizeWords(bytes)}</td>
            <td className="text-right max-sm:hidden">{versions}</td>
            <td className="max-md:hidden">
              <Day at={changedAt} />
            </td>
            <td className="quiet max-md:hidden">{openedAt === null ? 'not yet' : <Day at={openedAt} />}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
