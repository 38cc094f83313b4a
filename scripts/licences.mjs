// Lists the licences of everything that is shipped, from what is installed: `npm run licences`
// writes docs/licences.md, `--check` says whether it is as it should be.
import { existsSync, readFileSync, writeFileSync } from 'node:fs'

const FILE = 'docs/licences.md'
const lock = JSON.parse(readFileSync('package-lock.json', 'utf8'))
const shipped = Object.entries(lock.packages)
  .filter(([path, one]) => path.startsWith('node_modules/') && !one.dev && !one.devOptional && !one.optional)
  .map(([path]) => path)
  .filter((path) => existsSync(`${path}/package.json`))
  .map((path) => {
    const { name, version, license, licenses } = JSON.parse(readFileSync(`${path}/package.json`, 'utf8'))
    return { name, version, licence: nameOf(license ?? licenses ?? licenceFile(path)) }
  })
  .sort((a, b) => a.name.localeCompare(b.name, 'en') || a.version.localeCompare(b.version, 'en'))

/** A package that names no licence has its text. */
function licenceFile(path) {
  const file = ['LICENSE', 'LICENSE.md', 'LICENCE', 'license']
    .map((name) => `${path}/${name}`)
    .find(existsSync)
  const [heading] = file ? readFileSync(file, 'utf8').trim().split('\n') : []
  return heading && /MIT/.test(heading) ? 'MIT' : heading
}

/** Older packages say it as an object or a list. */
function nameOf(licence) {
  if (Array.isArray(licence)) return licence.map(nameOf).join(' or ')
  if (licence && typeof licence === 'object') return licence.type ?? 'not said'
  return licence ?? 'not said'
}

const once = shipped.filter(
  (one, at) => at === 0 || one.name !== shipped[at - 1].name || one.version !== shipped[at - 1].version,
)
const byLicence = once.reduce(
  (all, one) => all.set(one.licence, [...(all.get(one.licence) ?? []), one]),
  new Map(),
)
const text = `# Licences of what is shipped

Yellow Heron itself is under the MIT licence. It stands on these packages, ${once.length} in all, each under its own licence, whose text is in the package's folder in
\`node_modules\`. Fonts are among them; the flats and sharps of \`app/theme/fonts\` are cut out of Noto Sans Symbols (OFL-1.1, whose text stands beside them). Made by \`npm run licences\` from what is installed; \`./check\` sees that it is up to date.

| licence | packages |
|---|---|
${[...byLicence]
  .sort((a, b) => b[1].length - a[1].length || a[0].localeCompare(b[0], 'en'))
  .map(
    ([licence, all]) => `| ${licence} | ${all.map(({ name, version }) => `${name} ${version}`).join(', ')} |`,
  )
  .join('\n')}
`
if (process.argv.includes('--check')) {
  const there = existsSync(FILE) ? readFileSync(FILE, 'utf8') : ''
  if (there !== text) {
    console.error(`${FILE} is not what is installed: run npm run licences.`)
    process.exitCode = 1
  }
} else writeFileSync(FILE, text)
