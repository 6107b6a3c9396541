import { type ReactNode, useRef } from 'react'
import { fromList } from '../../../api/chosen-files.ts'
import { type UploadTo, useUpload } from '../../../api/use-upload.ts'

interface Props {
  readonly to: UploadTo
  /** Whole folders are picked. */
  readonly picksFolders?: boolean
  readonly children: ReactNode
}

/** Picks files, or a folder, from the disk and sends them. */
export function UploadButton({ to, picksFolders = false, children }: Props) {
  const input = useRef<HTMLInputElement>(null)
  const upload = useUpload(to)
  return (
    <>
      <button type="button" className="btn-plain" onClick={() => input.current?.click()}>
        {children}
      </button>
      <input
        ref={input}
        type="file"
        hidden
        multiple={!to.isVersion}
        {...(picksFolders ? { webkitdirectory: '' } : {})}
        onChange={event => {
          const { files } = event.target
          if (files !== null) void upload(fromList(files))
          // The same file can be picked again.
          event.target.value = ''
        }}
      />
    </>
  )
}
