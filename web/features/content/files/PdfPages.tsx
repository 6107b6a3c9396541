import { useEffect, useRef, useState } from 'react'
import { counted } from '#core/words/english.ts'
import { pageAddress, useFilePreviewWordsQuery } from '../../../api/files.ts'
import type { FileAt } from './Preview.tsx'

interface Props {
  readonly at: FileAt
  readonly name: string
  readonly pages: number
}

/** The pages of a PDF one below the other, each fetched when it comes near. */
export const PdfPages = ({ at, name, pages }: Props) => (
  <ol aria-label={`${name}, ${counted(pages, 'page', 'pages')}`} className="grid max-w-4xl gap-4">
    {Array.from({ length: pages }, (_, index) => (
      <li key={index}>
        <PdfPage at={at} page={index + 1} of={pages} />
      </li>
    ))}
  </ol>
)

interface PageProps {
  readonly at: FileAt
  readonly page: number
  readonly of: number
}

function PdfPage({ at, page, of }: PageProps) {
  const holder = useRef<HTMLElement>(null)
  const isNear = useIsNear(holder)
  return (
    <figure ref={holder} className="relative border border-base-300 bg-white">
      {isNear ? (
        <>
          <img src={pageAddress(at, page, 'large')} alt={`Page ${page}`} className="block w-full" />
          <Words at={at} page={page} />
        </>
      ) : (
        <div className="aspect-[1/1.414]" />
      )}
      <figcaption className="quiet border-t border-base-300 bg-base-100 px-2 py-0.5 text-sm">
        Page {page} of {of}
      </figcaption>
    </figure>
  )
}

/** Once it has come near, it stays. */
function useIsNear(holder: React.RefObject<HTMLElement | null>): boolean {
  const [isNear, setNear] = useState(false)
  useEffect(() => {
    const element = holder.current
    if (element === null || isNear) return
    const watching = new IntersectionObserver(
      entries => {
        if (entries.some(each => each.isIntersecting)) setNear(true)
      },
      { rootMargin: '600px' },
    )
    watching.observe(element)
    return () => watching.disconnect()
  }, [holder, isNear])
  return isNear
}

/** What is written on a page, over its picture: not seen, to be marked, copied and read aloud. */
function Words({ at, page }: { readonly at: FileAt; readonly page: number }) {
  const version = at.version === undefined ? {} : { version: String(at.version) }
  const { data: words = [] } = useFilePreviewWordsQuery({
    slug: at.slug,
    id: at.id,
    page: String(page),
    ...version,
  })
  return (
    <svg
      viewBox="0 0 1000 1000"
      preserveAspectRatio="none"
      className="absolute inset-0 size-full"
      aria-label={`Text of page ${page}`}
    >
      {words.map(({ text, x, y, width, height }, index) => (
        <text
          key={index}
          x={1000 * x}
          y={1000 * (y + height * 0.85)}
          fontSize={1000 * height}
          textLength={1000 * width}
          lengthAdjust="spacingAndGlyphs"
          fill="transparent"
        >
          {text}
        </text>
      ))}
    </svg>
  )
}
