import { gripsBench } from './core/gripsBench'
import { firstLines, linesBench, wholeTune } from './core/linesBench'
import { band, melodies, practiceBench } from './core/playing'
import { motion, reading, reharmonising } from './core/readingBench'

gripsBench()
linesBench()
wholeTune()
firstLines()
motion()
reading()
reharmonising()
melodies()
band()
practiceBench()
