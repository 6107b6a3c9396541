interface Props {
  readonly name: string
  /** The address of a picture; the initials stand in for none. */
  readonly src: string | null
  readonly size?: number
}

/** Somebody's or something's picture, beside the name: it says nothing to screen readers. */
export const Picture = ({ name, src, size = 28 }: Props) =>
  src === null ? (
    <span
      aria-hidden
      className="inline-flex shrink-0 items-center justify-center bg-base-300 font-semibold"
      style={{ width: size, height: size, fontSize: size * 0.4 }}
    >
      {initialsOf(name)}
    </span>
  ) : (
    <img src={src} alt="" width={size} height={size} className="shrink-0 object-cover" />
  )

/** The first letters of the first and the last word. */
function initialsOf(name: string): string {
  const words = name.split(/[\s@._-]+/).filter(Boolean)
  const letters = [words[0], words.length > 1 ? words.at(-1) : undefined].map(firstSign)
  return letters.join('').toUpperCase()
}

const firstSign = (word: string | undefined): string =>
  String.fromCodePoint(word?.codePointAt(0) ?? 32).trim()

export const pictureAddress = (slug: string, id: string | null): string | null =>
  id === null ? null : `/api/at/${slug}/pictures/${id}`
