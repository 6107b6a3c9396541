/** What everyday things are called, and why people say they do them. DAY is filled in. */

/** Rows by what stands in their board; `else` for every other. */
export const rows: Readonly<Record<string, readonly string[]>> = {
  'Kit Loans': [
    'Spotting scope 2',
    'Waders, size 42',
    'Handheld GPS 4',
    'Drift net',
    'Salinity meter',
    'Tripod',
    'Dinghy trailer',
  ],
  Permits: ['Landing at Tern Bank', 'Drone over Gull Sands', 'Vehicle on the foreshore', 'Ringing, winter'],
  Calendar: [
    'Low water count, creeks',
    'Lantern walk',
    'Training: tides',
    'Open hut',
    'Dune walk for families',
  ],
  else: ['Visit of DAY', 'Count at low water, DAY', 'Transect walked on DAY'],
}

export const files = [
  'Foredune from the groyne, DAY.jpg',
  'Quadrat at the sluice, DAY.jpg',
  'Sketch of the creek mouth.png',
  'Water levels to DAY.csv',
  'Counts at high water, DAY.csv',
  'Letter to the harbour office, DAY.pdf',
  'Walk along the tideline, DAY.gpx',
]

export const pages = [
  'Field notes, DAY',
  'Wind and tide on DAY',
  'Questions for the landowner',
  'Packing list for DAY',
  'Who drives on DAY',
  'Still to do after DAY',
  'Minutes of DAY',
]

export const notes = [
  'Figures from last season are in here as well.',
  'The old names of the channels are on the last page.',
  'Ask Lotte before you change the names of the columns.',
  'Complete for this season.',
  'The first two are from another observer.',
  'Both keys hang in the boat shed.',
]

export const reasons = [
  'For the annual report',
  'Stands in for a colleague this month',
  'Enters the counts of last week',
  'Asked for it at the morning meeting',
  'Helps with the winter counts',
  '',
  '',
]

export const endings = ['The work is done', 'Not needed any more', 'It was meant for one week only', '']
