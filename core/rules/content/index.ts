import { introShown } from './intro-shown'
import { languages, sideBySide } from './languages'
import { movement } from './movement'
import { pages } from './pages'
import { putOff } from './put-off'
import { shuffleOptions } from './shuffle-options'
import { wrongCost } from './wrong-cost'

/** Rules that are frozen with the content of an edition, in the order of their sentences. */
export const contentRules = { introShown, languages, sideBySide, movement, putOff, pages, shuffleOptions, wrongCost }
