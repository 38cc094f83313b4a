/** Names of the whole source, read as text. */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

const FOLDERS = ['core', 'app', 'db', 'server', 'workers', 'paper']
const DECLARED = /^(?:export )?(?:interface|type|class|enum) (\w+)/gm
/** What a component is given goes by one name everywhere, and is known in its file only. */
const OF_EACH_FILE = ['Props']

/** Names of types, each with the files that declare it. */
function typesIn(sources: readonly (readonly [file: string, text: string])[]): Map<string, string[]> {
  const files = new Map<string, string[]>()
  for (const [file, text] of sources)
    for (const [, name] of text.matchAll(DECLARED)) files.set(name!, [...(files.get(name!) ?? []), file])
  return files
}
const ofSeveral = (types: Map<string, string[]>) =>
  [...types].filter(([name, files]) => files.length > 1 && !OF_EACH_FILE.includes(name))

test('two types of one name are found, whether they are exported or not', () =>
  expect(
    ofSeveral(
      typesIn([
        ['a.ts', 'export interface Grip {\n}\ntype Reach = number\ninterface Props {\n}'],
        ['b.tsx', 'type Grip = string\ninterface Props {\n}'],
      ]),
    ),
  ).toEqual([['Grip', ['a.ts', 'b.tsx']]]))

/** What the language and the browser name so already, as TypeScript knows them. */
const GLOBALS = new Set(
  ['es5', 'es2015.collection', 'es2015.iterable', 'es2015.promise', 'es2015.symbol', 'dom'].flatMap((lib) =>
    [
      ...readFileSync(require.resolve(`typescript/lib/lib.${lib}.d.ts`), 'utf8').matchAll(
        /^(?:interface|declare var|type) (\w+)/gm,
      ),
    ].map(([, name]) => name!),
  ),
)

test('no name of the source stands for two types, nor hides what the language or the browser calls so', () => {
  const files = FOLDERS.flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((file) => join(folder, file)),
  ).filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file))
  const types = typesIn(files.map((file) => [file, readFileSync(file, 'utf8')] as const))
  expect(types.size).toBeGreaterThan(500)
  expect(ofSeveral(types)).toEqual([])
  expect([...GLOBALS]).toEqual(expect.arrayContaining(['Symbol', 'Document']))
  expect([...types.keys()].filter((name) => GLOBALS.has(name))).toEqual([])
})
