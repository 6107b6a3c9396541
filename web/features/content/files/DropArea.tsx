import { type DragEvent, type ReactNode, useEffect, useState } from 'react'
import { fromDrop, fromList } from '../../../api/chosen-files.ts'
import { type UploadTo, useUpload } from '../../../api/use-upload.ts'

interface Props {
  /** Nothing is taken where this is not said. */
  readonly to: UploadTo | undefined
  readonly className: string
  readonly children: ReactNode
}

const nowhere: UploadTo = { place: '', name: '', isVersion: false }

const holdsFiles = (event: DragEvent): boolean => event.dataTransfer.types.includes('Files')

/** An open place, onto which files and folders can be dropped, and into which they can be pasted. */
export function DropArea({ to, className, children }: Props) {
  const upload = useUpload(to ?? nowhere)
  const [isOver, setOver] = useState(false)
  usePaste(to === undefined ? undefined : files => void upload(fromList(files)))
  const takes = (event: DragEvent) => to !== undefined && holdsFiles(event)
  return (
    <main
      className={`relative ${className}`}
      onDragOver={event => {
        if (!takes(event)) return
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={event => {
        if (!event.currentTarget.contains(event.relatedTarget as Node | null)) setOver(false)
      }}
      onDrop={event => {
        setOver(false)
        if (!takes(event)) return
        event.preventDefault()
        void fromDrop(event.dataTransfer).then(upload)
      }}
    >
      {children}
      {isOver && to !== undefined && (
        <div className="pointer-events-none fixed inset-x-0 bottom-10 z-40 mx-auto w-fit border-2 border-primary bg-base-100 px-6 py-3 text-lg font-bold">
          {to.isVersion ? `Drop it to upload a new version of ${to.name}` : `Drop to upload into ${to.name}`}
        </div>
      )}
    </main>
  )
}

/** Files that are pasted while nobody is typing. */
function usePaste(onFiles: ((files: readonly File[]) => void) | undefined): void {
  useEffect(() => {
    if (onFiles === undefined) return
    const onPaste = (event: ClipboardEvent) => {
      const isTyping =
        event.target instanceof HTMLElement &&
        event.target.closest('input, textarea, [contenteditable]') !== null
      const files = Array.from(event.clipboardData?.files ?? [])
      if (isTyping || files.length === 0) return
      event.preventDefault()
      onFiles(files)
    }
    document.addEventListener('paste', onPaste)
    return () => document.removeEventListener('paste', onPaste)
  })
}
