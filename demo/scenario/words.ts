/** What everyday things are called, and why people say they do them. DAY and NR are filled in. */

export const rows = [
  'Visit of DAY',
  'DAY, morning',
  'DAY, low water',
  'Station NR',
  'Post NR',
  'Team note NR',
]

export const files = [
  'Photograph NR.jpg',
  'Quadrat NR.jpg',
  'Sketch of DAY.png',
  'Readings of DAY.csv',
  'Letter of DAY.pdf',
  'Track NR.gpx',
]

export const pages = [
  'What we saw on DAY',
  'Weather on DAY',
  'To ask before DAY',
  'List NR',
  'Who brings what on DAY',
  'Loose ends of DAY',
]

export const notes = [
  'Checked twice.',
  'Needs somebody with a second pair of eyes.',
  'Figures from the old notebook are in here as well.',
  'Ask Lotte before you change the names.',
  'Complete for this season.',
  'The first two are from another observer.',
]

export const reasons = [
  'For the write-up',
  'While somebody is away',
  'To fill in the gaps',
  'Asked at the morning round',
  'Helps with the counting',
  '',
  '',
]

export const endings = ['Done', 'Not needed any more', 'It was meant for the week only', '']
