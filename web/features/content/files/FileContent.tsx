import { useState } from 'react'
import type { FileView } from '#contract/views/files.ts'
import type { FileForm } from '#contract/terms.ts'
import { sizeWords } from '#core/words/sizes.ts'
import { counted } from '#core/words/english.ts'
import { bytesAddress, useFilePreviewQuery, useFileQuery } from '../../../api/files.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day } from '../../../ui/dates.tsx'
import { UploadButton } from './UploadButton.tsx'
import { Preview } from './Preview.tsx'
import { Versions } from './Versions.tsx'

interface Props {
  readonly id: string
  readonly name: string
  readonly mayEdit: boolean
}

/** A file: what it is, what can be seen of it, and how it is taken and replaced. */
export function FileContent({ id, name, mayEdit }: Props) {
  const { slug } = useHere()
  const { data: file } = useFileQuery({ slug, id })
  const { data: preview } = useFilePreviewQuery({ slug, id })
  const [showsVersions, setShowsVersions] = useState(false)
  if (file === undefined || preview === undefined) return null
  return (
    <section aria-label={`The file ${name}`}>
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <p>
          <Facts file={file} form={preview.form} />
        </p>
        <div className="flex flex-wrap gap-1.5">
          <Take at={{ slug, id }} name={name} file={file} />
          {mayEdit && <Replace id={id} name={name} file={file} />}
          {mayEdit && file.version > 0 && (
            <button
              type="button"
              className="btn-plain"
              aria-expanded={showsVersions}
              onClick={() => setShowsVersions(!showsVersions)}
            >
              Versions
            </button>
          )}
        </div>
      </div>
      {!file.mayTake && file.version > 0 && <LookOnly mark={preview.mark} />}
      {showsVersions ? (
        <Versions id={id} name={name} newest={file.version} mayTake={file.mayTake} />
      ) : (
        <Preview at={{ slug, id }} name={name} preview={preview} />
      )}
    </section>
  )
}

const LookOnly = ({ mark }: { readonly mark: string | null }) => (
  <p className="quiet mb-3 text-sm">
    You can look at this file here. To download it you need Reader.
    {mark !== null && ` What you see is marked “${mark}”.`}
  </p>
)

interface ActProps {
  readonly name: string
  readonly file: FileView
}

const Take = ({
  at,
  name,
  file,
}: ActProps & { readonly at: { readonly slug: string; readonly id: string } }) =>
  file.mayTake &&
  file.version > 0 && (
    <a className="btn-plain" href={bytesAddress(at)} download={name}>
      Download
    </a>
  )

const Replace = ({ id, name, file }: ActProps & { readonly id: string }) => (
  <UploadButton to={{ place: id, name, isVersion: true }}>
    {file.version === 0 ? 'Upload the file …' : 'Upload new version …'}
  </UploadButton>
)

const formWords: Readonly<Record<FileForm, string>> = {
  picture: 'Picture',
  pages: 'PDF',
  text: 'Text',
  document: 'CommonMark',
  rows: 'Table',
  sound: 'Sound',
  film: 'Film',
  none: 'File',
}

function Facts({ file, form }: { readonly file: FileView; readonly form: FileForm }) {
  if (file.version === 0) return <span className="quiet">Nothing has been uploaded here yet.</span>
  return (
    <>
      <strong>{formWords[form]}</strong> · {sizeWords(file.size)}
      <span className="quiet">
        {' '}
        ·{' '}
        {file.version === 1
          ? 'first version'
          : `${counted(file.version, 'version', 'versions')} so far, the last`}
        {file.changedBy !== null && ` by ${file.changedBy}`}
        {file.changedAt !== null && (
          <>
            {' '}
            on <Day at={file.changedAt} />
          </>
        )}
      </span>
    </>
  )
}
