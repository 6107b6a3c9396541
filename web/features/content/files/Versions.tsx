import { type ReactNode, useState } from 'react'
import type { FileVersionView } from '#contract/views/files.ts'
import type { Problem } from '#contract/views/problem.ts'
import { sizeWords } from '#core/words/sizes.ts'
import {
  bytesAddress,
  useFilePreviewQuery,
  useFileVersionsQuery,
  useRestoreFileVersionMutation,
} from '../../../api/files.ts'
import { useHere } from '../../../api/use-here.ts'
import { say } from '../../../store/message.ts'
import { useAppDispatch } from '../../../store/store.ts'
import { Day, Time } from '../../../ui/dates.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { Preview } from './Preview.tsx'

interface Props {
  readonly id: string
  readonly name: string
  readonly newest: number
  readonly mayTake: boolean
}

/** The versions that are kept of a file: any two beside each other, and an earlier one made the newest again. */
export function Versions({ id, name, newest, mayTake }: Props) {
  const { slug } = useHere()
  const { data: versions = [] } = useFileVersionsQuery({ slug, id })
  const [picked, setPicked] = useState<readonly number[]>([])
  const dispatch = useAppDispatch()
  const [restore, { error, isLoading }] = useRestoreFileVersionMutation()
  const onRestore = async (version: number) => {
    const { data } = await restore({ slug, id, version: String(version) })
    if (data !== undefined)
      dispatch(say({ text: `Version ${version} is the newest again, as version ${data.version}.` }))
  }
  // Whichever was picked last stays: two are seen at once.
  const onPick = (version: number) =>
    setPicked(
      picked.includes(version) ? picked.filter(each => each !== version) : [...picked, version].slice(-2),
    )
  const shown = versions
    .filter(each => picked.includes(each.version))
    .toSorted((a, b) => a.version - b.version)
  return (
    <div>
      <p className="quiet mb-1 text-sm">Pick one to see it, two to compare them.</p>
      <VersionTable>
        {versions.map(each => (
          <VersionRow key={each.version} of={each} isPicked={picked.includes(each.version)} onPick={onPick}>
            {mayTake && (
              <a
                className="btn-inline text-sm"
                href={bytesAddress({ slug, id, version: each.version })}
                download={name}
              >
                Download
              </a>
            )}
            {each.version !== newest && (
              <button
                type="button"
                className="btn-inline text-sm"
                disabled={isLoading}
                onClick={() => void onRestore(each.version)}
              >
                Restore
              </button>
            )}
          </VersionRow>
        ))}
      </VersionTable>
      <ProblemNote problem={error as Problem | undefined} />
      <div className={`mt-4 grid gap-4 ${shown.length > 1 ? 'lg:grid-cols-2' : ''}`}>
        {shown.map(each => (
          <VersionPreview key={each.version} slug={slug} id={id} name={name} of={each} />
        ))}
      </div>
      <Difference shown={shown} />
    </div>
  )
}

const VersionTable = ({ children }: { readonly children: ReactNode }) => (
  <table className="sheet max-w-4xl">
    <thead>
      <tr>
        <th scope="col" className="w-px">
          <span className="sr-only">Show</span>
        </th>
        <th scope="col">Version</th>
        <th scope="col">Uploaded</th>
        <th scope="col" className="text-right">
          Size
        </th>
        <th scope="col" className="max-sm:hidden" title="The beginning of it: equal ones are the same bytes">
          SHA-256
        </th>
        <th scope="col" className="w-px">
          <span className="sr-only">What can be done</span>
        </th>
      </tr>
    </thead>
    <tbody>{children}</tbody>
  </table>
)

interface RowProps {
  readonly of: FileVersionView
  readonly isPicked: boolean
  readonly onPick: (version: number) => void
  readonly children: ReactNode
}

const VersionRow = ({ of, isPicked, onPick, children }: RowProps) => (
  <tr>
    <td>
      <input
        type="checkbox"
        className="checkbox checkbox-sm border-base-content/60"
        aria-label={`Show version ${of.version}`}
        checked={isPicked}
        onChange={() => onPick(of.version)}
      />
    </td>
    <td>
      <strong>{of.version}</strong>
      {of.restoredFrom !== null && <span className="quiet text-sm"> · version {of.restoredFrom} again</span>}
    </td>
    <td>
      <Day at={of.changedAt} />, <Time at={of.changedAt} />
      {of.changedBy !== null && ` by ${of.changedBy}`}
    </td>
    <td className="text-right whitespace-nowrap">{sizeWords(of.size)}</td>
    <td className="quiet font-mono text-sm max-sm:hidden">{of.hash.slice(0, 10)}</td>
    <td>
      <span className="flex gap-1.5">{children}</span>
    </td>
  </tr>
)

interface ShownProps {
  readonly slug: string
  readonly id: string
  readonly name: string
  readonly of: FileVersionView
}

function VersionPreview({ slug, id, name, of: { version } }: ShownProps) {
  const { data: preview } = useFilePreviewQuery({ slug, id, version: String(version) })
  return (
    <section aria-label={`Version ${version}`} className="min-w-0">
      <h2 className="mb-1 font-bold">Version {version}</h2>
      {preview !== undefined && <Preview at={{ slug, id, version }} name={name} preview={preview} />}
    </section>
  )
}

/** What of two versions differs, in a line. */
function Difference({ shown }: { readonly shown: readonly FileVersionView[] }) {
  const [one, other] = shown
  if (one === undefined || other === undefined) return null
  const more = other.size - one.size
  return (
    <p className="mt-2">
      {one.hash === other.hash
        ? 'Both are the same bytes.'
        : more === 0
          ? 'They are of one size, and differ.'
          : `Version ${other.version} is ${sizeWords(Math.abs(more))} ${more > 0 ? 'larger' : 'smaller'}.`}
    </p>
  )
}
