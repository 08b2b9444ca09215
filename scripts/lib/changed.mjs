/** What a change touches: the files that differ from a commit, and the end-to-end tests of what they are part of. */
import { spawnSync } from 'node:child_process'

/** Files that differ from `rev`, committed since or not. */
export function changedFiles(rev) {
  const git = args => {
    const { status, stdout, stderr } = spawnSync('git', args, { encoding: 'utf8' })
    if (status !== 0) throw new Error(stderr.trim())
    return stdout.split('\n').filter(Boolean)
  }
  return [...new Set([...git(['diff', '--name-only', rev]), ...git(['ls-files', '--others', '--exclude-standard'])])]
}

/** The first that fits a path tells its specs; what is under none of them is part of every screen. */
const SPECS = [
  [/^tests\/e2e\/(\w+)\.spec\.ts$/, name => [name]],
  [/^(docs|bench|\.ci)\/|^tests\/(unit|components|reference|integration|samples)\/|\.md$/, () => []],
  [
    /^(app\/(pages|components)\/prepare|server\/records\/prepare|core\/(drying|chamber|changeover|anneal|precheck))\b/,
    () => ['prepare'],
  ],
  [
    /^(app\/(pages|components)\/equip|server\/records\/(printers|materials)|core\/(limits|money|thermometry))\b/,
    () => ['equip'],
  ],
  [/^app\/(strip|components\/strip|composables\/shortcuts)/, () => ['keyboard']],
  [/^app\/(state\/outbox|lib\/api|components\/ui\/Outbox)/, () => ['outbox', 'trouble']],
  [/^app\/(pages|components)\//, () => ['shop', 'keyboard']],
  [/^(scripts|sim)\//, () => ['start']],
  [/^(server\/(api|doors)|shared)\//, () => ['api', 'fuzz', 'shop']],
]
/** Spec files for these paths; null for all of them. */
export function specsFor(paths) {
  const specs = new Set()
  for (const path of paths) {
    const rule = SPECS.find(([pattern]) => pattern.test(path))
    if (!rule) return null
    for (const spec of rule[1](rule[0].exec(path)[1])) specs.add(`tests/e2e/${spec}.spec.ts`)
  }
  return [...specs].sort()
}
