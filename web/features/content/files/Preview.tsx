import type { ReactNode } from 'react'
import type { PreviewView } from '#contract/views/files.ts'
import { counted } from '#core/words/english.ts'
import { bytesAddress, pageAddress } from '../../../api/files.ts'
import { CommonMark } from '../../../ui/CommonMark.tsx'
import { PdfPages } from './PdfPages.tsx'

export interface FileAt {
  readonly slug: string
  readonly id: string
  readonly version?: number
}

interface Props {
  readonly at: FileAt
  readonly name: string
  readonly preview: PreviewView
}

/** What can be seen of a file in the page. */
export function Preview({ at, name, preview }: Props) {
  const { form, fault, text, rows, mark, isWhole } = preview
  if (fault !== null) return preview.version === 0 ? null : <p className="quiet py-4">{faultWords[fault]}</p>
  switch (form) {
    case 'picture':
      return (
        <img
          src={pageAddress(at, 1, 'large')}
          alt={name}
          className="max-h-[70vh] max-w-full border border-base-300 bg-base-200"
        />
      )
    case 'pages':
      return <PdfPages at={at} name={name} pages={preview.pages} />
    case 'document':
      return (
        <Marked mark={mark} isWhole={isWhole}>
          <CommonMark text={text ?? ''} />
        </Marked>
      )
    case 'text':
      return (
        <Marked mark={mark} isWhole={isWhole}>
          <pre tabIndex={0} aria-label={name} className="overflow-x-auto text-sm whitespace-pre-wrap">
            {text}
          </pre>
        </Marked>
      )
    case 'rows':
      return (
        <Marked mark={mark} isWhole={isWhole}>
          <Rows name={name} rows={rows ?? []} />
        </Marked>
      )
    case 'sound':
      return (
        <audio
          controls
          preload="metadata"
          src={bytesAddress(at)}
          aria-label={name}
          className="w-full max-w-xl"
        />
      )
    case 'film':
      return (
        <video
          controls
          preload="metadata"
          src={bytesAddress(at)}
          aria-label={name}
          className="max-h-[70vh] max-w-full"
        />
      )
    case 'none':
      return null
  }
}

const faultWords: Readonly<Record<NonNullable<PreviewView['fault']>, string>> = {
  kind: 'Files of this kind are not shown here. Download it to open it.',
  broken: 'This file cannot be shown: it is broken, or not what its name says.',
  'too-large': 'This file is too large to be shown here. Download it to open it.',
  'takes-too-long': 'It takes too long to show this file. Download it to open it.',
  'look-only': 'Sound and film are played only for people who can download them. You need Reader.',
}

interface MarkedProps {
  readonly mark: string | null
  readonly isWhole: boolean
  readonly children: ReactNode
}

const rowsOfMarks = 14

/** A text with the name of its reader across, where the workspace asks for that. */
const Marked = ({ mark, isWhole, children }: MarkedProps) => (
  <>
    <div className="relative overflow-hidden border border-base-300 px-4 py-3">
      {children}
      {mark !== null && (
        <div
          aria-hidden
          className="pointer-events-none absolute -inset-24 flex -rotate-12 flex-col justify-around"
        >
          {Array.from({ length: rowsOfMarks }, (_, row) => (
            <p key={row} className="text-lg whitespace-nowrap text-base-content/20">
              {Array<string>(8).fill(mark).join('        ')}
            </p>
          ))}
        </div>
      )}
    </div>
    {!isWhole && <p className="quiet mt-2 text-sm">Only the beginning is shown.</p>}
  </>
)

/** Lines of a table need not be of one length. */
function Rows({ name, rows }: { readonly name: string; readonly rows: readonly (readonly string[])[] }) {
  const [head = [], ...body] = rows
  const width = Math.max(...rows.map(each => each.length), 0)
  const cells = (row: readonly string[]) => Array.from({ length: width }, (_, at) => row[at] ?? '')
  return (
    <div
      tabIndex={0}
      role="region"
      aria-label={`${name}, ${counted(rows.length, 'row', 'rows')}`}
      className="max-h-[65vh] overflow-auto"
    >
      <table className="sheet text-sm">
        <thead>
          <tr>
            {cells(head).map((cell, at) => (
              <th
                key={at}
                scope="col"
                className={`sticky top-0 bg-base-100 ${isOfNumbers(body, at) ? 'text-right' : ''}`}
              >
                {cell}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {body.map((row, at) => (
            <tr key={at}>
              {cells(row).map((cell, column) => (
                <td key={column} className={isNumber(cell) ? 'text-right tabular-nums' : ''}>
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

/** As the first rows have it. */
const isOfNumbers = (rows: readonly (readonly string[])[], column: number): boolean =>
  rows.length > 0 && rows.slice(0, 5).every(row => isNumber(row[column] ?? ''))

const isNumber = (cell: string): boolean => /^-?[\d.,\s]+$/.test(cell) && /\d/.test(cell)
