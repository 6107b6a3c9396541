/** Mail domains out of a typed list: with commas or blanks between them, "@a.example" is meant too. */
export const domainsIn = (text: string): string[] => [
  ...new Set(
    text
      .toLowerCase()
      .split(/[\s,;]+/)
      .map(each => each.replace(/^@/, ''))
      .filter(Boolean),
  ),
]
