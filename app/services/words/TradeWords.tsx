import { engravedWords } from '../../../core/chord/engraved'
import { explainedAt, tradeWordsIn } from './trade'

/** A sentence whose words of the trade lead to where they are explained, beside this page. */
export function TradeWords({ children }: { children: string }) {
  return tradeWordsIn(children).map(({ text, word }, at) =>
    word === null ? (
      engravedWords(text)
    ) : (
      <a key={at} className="trade-word" href={explainedAt(word)} target="_blank" rel="noopener">
        {engravedWords(text)}
      </a>
    ),
  )
}
