import { readdirSync } from 'node:fs'

/**
 * Who may import whom. Each row: a folder, and what of the project it may import besides itself.
 * Lint enforces it; scripts/layers.test.ts tries what must fail and what must pass.
 */
const coreOrder = [
  'base',
  'levels',
  'tree',
  'people',
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
]
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
  { target: 'server/store', from: ['server/http', 'server/services'] },
  { target: 'server/mail', from: ['server/http', 'server/services'] },
  { target: 'server/live', from: ['server/http', 'server/services', 'server/store'] },
  { target: 'web/ui', from: ['web/features', 'web/store', 'web/app', 'web/api'] },
  { target: 'web/api', from: ['web/features', 'web/app', 'web/ui'] },
  { target: 'web/store', from: ['web/features', 'web/app', 'web/ui'] },
  { target: 'web/features', from: 'web/app' },
]

/** A new feature has its wall at once. */
const features = readdirSync(new URL('../web/features', import.meta.url))

const pathsOf = names => names.map(name => `./${name}`)

export const layerZones = [
  ...Object.entries(mayImport).map(([layer, allowed]) => ({
    target: `./${layer}`,
    from: pathsOf(layers.filter(each => each !== layer && !allowed.includes(each))),
    message: `${layer} may import ${allowed.length === 0 ? 'nothing outside itself' : allowed.join(' and ')}.`,
  })),
  ...coreOrder.map((folder, index) => ({
    target: `./core/${folder}`,
    from: pathsOf(coreOrder.slice(index + 1).map(later => `core/${later}`)),
    message: `core/${folder} comes before that folder.`,
  })),
  ...within.map(({ target, from }) => ({ target: `./${target}`, from: pathsOf([from].flat()) })),
  ...features.map(feature => ({
    target: `./web/features/${feature}`,
    from: './web/features',
    except: [`./${feature}`],
    message: 'Features do not meet.',
  })),
].filter(zone => zone.from.length > 0)
