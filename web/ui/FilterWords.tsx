interface Props<Word extends string> {
  readonly label: string
  readonly words: readonly Word[]
  readonly chosen: Word
  readonly onChoose: (word: Word) => void
}

/** A choice among a few words in a row: what a list shows, or which of two views is open. */
export const FilterWords = <Word extends string>({ label, words, chosen, onChoose }: Props<Word>) => (
  <div role="group" aria-label={label} className="flex gap-4">
    {words.map(word => (
      <button
        key={word}
        type="button"
        aria-pressed={word === chosen}
        className={`cursor-pointer border-b-2 pb-px ${word === chosen ? 'border-primary font-bold' : 'border-transparent'}`}
        onClick={() => onChoose(word)}
      >
        {word}
      </button>
    ))}
  </div>
)
