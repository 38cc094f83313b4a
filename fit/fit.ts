import { fitIdiom } from './idiom'
import { fitJudge } from './judge'
import { sayPreferred } from './preferred'
import { checkPairs, proposeWeights } from './weights'

// Pairs are judged with the idiom as it stands in the tree: after the idiom has changed, run it
// again.
checkPairs()
proposeWeights()
fitIdiom()
fitJudge()
sayPreferred()
