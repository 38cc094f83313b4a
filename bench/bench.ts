import { grips } from './core/grips'
import { firstLines, lines, wholeTune } from './core/lines'
import { band, melodies, practice } from './core/playing'
import { motion, reading, reharmonising } from './core/reading'

grips()
lines()
wholeTune()
firstLines()
motion()
reading()
reharmonising()
melodies()
band()
practice()
