/** Names of the whole source, read as text. */
import { itemAt } from '../core/lists'
import { readdirSync, readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { createSourceFile, forEachChild, isNonNullExpression, ScriptTarget, type Node } from 'typescript'

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

/** What the framework, the lint of it or a stand-in in tests calls the same in many files. */
const OF_ROUTES = ['loader', 'action', 'meta', 'shouldRevalidate', 'clientAction', 'ErrorBoundary', 'headers']
/** `workers/server/atOnce` stands for the pool of the server's workers where routes are tested. */
const STANDS_IN = ['runJob']
/** A step is a folder with a `room.ts`: `app/steps/rooms.ts` lists them. */
const OF_EACH_FOLDER = ['room.ts']
const EXPORTED = /^export (?:async )?(?:const|function\*?|class|interface|type) (\w+)/gm

/** Exported names, each with the files that export it. */
function exportsIn(sources: readonly (readonly [file: string, text: string])[]): Map<string, string[]> {
  const files = new Map<string, Set<string>>()
  for (const [file, text] of sources)
    for (const [, name] of text.matchAll(EXPORTED))
      files.set(name!, (files.get(name!) ?? new Set<string>()).add(file))
  return new Map([...files].map(([name, all]) => [name, [...all]]))
}
/** Lines of comments that are longer than a comment may be, and comments stacked on another. */
function commentFaults(text: string): string[] {
  const lines = text.split('\n')
  const wide = lines.filter(
    (line) => line.length > 100 && /^\s*(\/\/|\*|\/\*\*)/.test(line) && !/oxlint-|prettier-ignore/.test(line),
  )
  const stacked = lines.filter(
    (line, at) => /^\s*\/\*\*/.test(line) && at > 0 && /^\s*(\/\*\*.*)?\*\/$/.test(itemAt(lines, at - 1)),
  )
  return [...wide, ...stacked]
}
const sources = () =>
  FOLDERS.flatMap((folder) =>
    readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((file) => join(folder, file)),
  )
    .filter((file) => /\.tsx?$/.test(file))
    .map((file) => [file, readFileSync(file, 'utf8')] as const)
const isTest = ([file]: readonly [file: string, text: string]) => /\.test\.tsx?$/.test(file)

test('a file says its subject: no two files have the same name', () => {
  const places = new Map<string, string[]>()
  for (const [file] of sources()) {
    const name = basename(file).replace(/^index\.tsx?$/, file)
    places.set(name, [...(places.get(name) ?? []), file])
  }
  expect([...places].filter(([name, files]) => files.length > 1 && !OF_EACH_FOLDER.includes(name))).toEqual(
    [],
  )
})

test('an exported name is defined once', () => {
  expect(
    exportsIn([
      ['a.ts', 'export const placesOf = 1\nexport function lineOf() {}\nexport function lineOf(a) {}'],
      ['b.ts', 'export type placesOf = 2'],
    ]),
  ).toEqual(
    new Map([
      ['placesOf', ['a.ts', 'b.ts']],
      ['lineOf', ['a.ts']],
    ]),
  )
  const twice = [...exportsIn(sources().filter((one) => !isTest(one)))].filter(
    ([name, files]) => files.length > 1 && ![...OF_ROUTES, ...STANDS_IN].includes(name),
  )
  expect(twice).toEqual([])
})

test('comments are at most 100 columns wide, and none stands on another', () => {
  const wide = `// ${'why '.repeat(30)}`
  expect(commentFaults(`/** One. */\n/** Two. */\nconst a = 1\n${wide}\n/** Three. */`)).toEqual([
    wide,
    '/** Two. */',
  ])
  expect(sources().flatMap(([file, text]) => commentFaults(text).map((line) => `${file}: ${line}`))).toEqual(
    [],
  )
})

/** `value!`, which nothing checks when it runs: `core/lists` has what says so where it is wrong. */
const MOST_ASSERTIONS = 600

test('assertions that nothing checks stay few', () => {
  const assertionsIn = (text: string) => {
    let count = 0
    const visit = (node: Node) => {
      if (isNonNullExpression(node)) count += 1
      forEachChild(node, visit)
    }
    visit(createSourceFile('a.tsx', text, ScriptTarget.Latest))
    return count
  }
  expect(assertionsIn('const a = b! + c[0]!\nconst d = !e')).toBe(2)
  const all = sources()
    .filter((one) => !isTest(one))
    .reduce((sum, [, text]) => sum + assertionsIn(text), 0)
  expect(all).toBeLessThanOrEqual(MOST_ASSERTIONS)
})

test('no name of the source stands for two types, nor hides what the language or the browser calls so', () => {
  const types = typesIn(sources().filter((one) => !isTest(one)))
  expect(types.size).toBeGreaterThan(500)
  expect(ofSeveral(types)).toEqual([])
  expect([...GLOBALS]).toEqual(expect.arrayContaining(['Symbol', 'Document']))
  expect([...types.keys()].filter((name) => GLOBALS.has(name))).toEqual([])
})
