import { useState } from 'react'
import { pageAddress } from '../../../api/files.ts'
import { KindIcon } from '../../../ui/KindIcon.tsx'

interface Props {
  readonly at: { readonly slug: string; readonly id: string }
  readonly className: string
}

/** A small picture of a file, beside its name; the sign of a file where there is none. */
export function Thumbnail({ at, className }: Props) {
  const [isBroken, setBroken] = useState(false)
  return (
    <span className={`inline-flex shrink-0 items-center justify-center bg-base-200 ${className}`}>
      {isBroken ? (
        <KindIcon kind="file" />
      ) : (
        <img
          src={pageAddress(at, 1, 'small')}
          alt=""
          loading="lazy"
          decoding="async"
          className="size-full object-cover"
          onError={() => setBroken(true)}
        />
      )}
    </span>
  )
}
