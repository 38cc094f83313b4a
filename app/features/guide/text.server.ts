import { Marked, type Tokens } from 'marked'
import guide from '../../../docs/guide.md?raw'
import glossary from '../../../docs/glossary.md?raw'
import chartText from '../../../docs/chart-text.md?raw'

/** The texts for players, as they stand in `docs`: the guide itself, and what it points to. */
const TEXTS = { guide, 'chart-text': chartText, glossary } as const
export type GuideText = keyof typeof TEXTS
export const isGuideText = (name: string): name is GuideText => Object.hasOwn(TEXTS, name)

/** `## Why the numbers` as the address of its heading. */
const anchor = (heading: string): string =>
  heading
    .toLowerCase()
    .replace(/[^a-z0-9 ]/g, '')
    .trim()
    .replaceAll(' ', '-')

const here = new Marked({
  renderer: {
    heading({ tokens, depth, text }: Tokens.Heading) {
      return `<h${depth} id="${anchor(text)}">${this.parser.parseInline(tokens)}</h${depth}>\n`
    },
    // What leads to another text leads to its page; pictures are served beside it.
    link({ href, tokens }: Tokens.Link) {
      const other = /^([a-z-]+)\.md$/.exec(href)?.[1]
      return `<a href="${other ? `/guide/${other}` : href}">${this.parser.parseInline(tokens)}</a>`
    },
    image({ href, text }: Tokens.Image) {
      return `<img src="/guide-pictures/${href.replace('screenshots/', '')}" alt="${text}" loading="lazy" width="1280" height="800">`
    },
  },
})

/** Rows of the glossary have addresses too: the first of their words. */
const withRows = (html: string): string =>
  html.replace(/<tr>\n<td>([^,<]*)/g, (row, word: string) => row.replace('<tr>', `<tr id="${anchor(word)}">`))

/** A text as HTML. It is our own, and holds nothing that anyone typed. */
export const textAsHtml = (name: GuideText): string => withRows(here.parse(TEXTS[name], { async: false }))
