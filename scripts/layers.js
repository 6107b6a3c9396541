import { readdirSync } from 'node:fs'

/**
 * Who may import whom. Each row: a folder, and what of the project it may import besides itself.
 * Lint enforces it; scripts/layers.test.ts tries what must fail and what must pass.
 */
/** Folders that stand on those before them, by where they are. */
export const ordered = {
  core: [
    'base',
    'levels',
    'tree',
    'people',
    'boards',
    'rules',
    'index',
    'state',
    'access',
    'explain',
    'changes',
    'impact',
    'remedies',
    'words',
    'records',
  ],
  'server/services': [
    'viewer',
    'account',
    'oversight',
    'notifications',
    'changes',
    'content',
    'boards',
    'search',
    'access',
    'people',
    'teams',
    'roles',
    'sessions',
    'workspace',
  ],
}

const layers = ['core', 'contract', 'demo', 'server', 'web', 'e2e', 'bench', 'scripts']

const mayImport = {
  core: [],
  contract: ['core'],
  demo: ['core'],
  server: ['core', 'contract'],
  web: ['core', 'contract'],
  e2e: ['demo', 'contract'],
}

const within = [
  { target: 'server/http', from: 'server/store' },
  { target: 'server/services', from: 'server/http' },
  // What the engine answers in numbers, services are told in ids.
  {
    target: 'server/services',
    from: [
      'core/index',
      'core/base/numbering.ts',
      'core/base/vector.ts',
      'core/access/what.ts',
      'core/access/evaluation-context.ts',
      'core/access/cut-segments.ts',
    ],
  },
  { target: 'server/store', from: ['server/http', 'server/services'] },
  { target: 'server/mail', from: ['server/http', 'server/services'] },
  {
    target: 'server/worker',
    from: ['server/http', 'server/services', 'server/store', 'server/mail', 'server/live'],
  },
  {
    target: 'server/boards',
    from: ['server/http', 'server/services', 'server/store', 'server/mail', 'server/live'],
  },
  { target: 'server/live', from: ['server/http', 'server/services', 'server/store'] },
  { target: 'web/workers', from: ['web/features', 'web/app', 'web/ui', 'web/api', 'web/store'] },
  { target: 'web/ui', from: ['web/features', 'web/store', 'web/app', 'web/api'] },
  { target: 'web/api', from: ['web/features', 'web/app', 'web/ui'] },
  { target: 'web/store', from: ['web/features', 'web/app', 'web/ui'] },
  { target: 'web/features', from: 'web/app' },
]

const pathsOf = names => names.map(name => `./${name}`)

/** Read from the disk: a new folder has its wall at once. */
export const foldersIn = path =>
  readdirSync(new URL(`../${path}`, import.meta.url), { withFileTypes: true })
    .filter(each => each.isDirectory() && each.name !== 'tests')
    .map(each => each.name)

const features = foldersIn('web/features')

/** Each may import those before it; one that has no place yet, none. */
const orderedZones = Object.entries(ordered).flatMap(([path, order]) =>
  foldersIn(path).map(folder => {
    const before = order.slice(0, Math.max(0, order.indexOf(folder)))
    const others = foldersIn(path).filter(each => each !== folder && !before.includes(each))
    return {
      target: `./${path}/${folder}`,
      from: pathsOf(others.map(each => `${path}/${each}`)),
      message: `${path}/${folder} comes before that folder.`,
    }
  }),
)

export const layerZones = [
  ...Object.entries(mayImport).map(([layer, allowed]) => ({
    target: `./${layer}`,
    from: pathsOf(layers.filter(each => each !== layer && !allowed.includes(each))),
    message: `${layer} may import ${allowed.length === 0 ? 'nothing outside itself' : allowed.join(' and ')}.`,
  })),
  ...orderedZones,
  ...within.map(({ target, from }) => ({ target: `./${target}`, from: pathsOf([from].flat()) })),
  ...features.map(feature => ({
    target: `./web/features/${feature}`,
    from: './web/features',
    except: [`./${feature}`],
    message: 'Features do not meet.',
  })),
].filter(zone => zone.from.length > 0)
