import { data } from 'react-router'
import { isGuideText, textAsHtml } from '../features/guide/text.server'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/guide'

export const meta: Route.MetaFunction = () => [{ title: 'Guide · Yellow Heron' }]

export function loader({ params: { text = 'guide' } }: Route.LoaderArgs) {
  if (!isGuideText(text)) throw data('There is no such text.', { status: 404, statusText: 'No such text' })
  // The head of the page is its first heading.
  const [, title = 'Guide', rest = ''] = /^<h1[^>]*>(.*?)<\/h1>\s*([^]*)$/.exec(textAsHtml(text)) ?? []
  return { title, html: rest }
}

/** What a player may want to read, the same text as in `docs`. */
export default function GuidePage({ loaderData: { title, html } }: Route.ComponentProps) {
  return (
    <main className="page guide">
      <PageHead title={title} />
      <article dangerouslySetInnerHTML={{ __html: html }} />
    </main>
  )
}
