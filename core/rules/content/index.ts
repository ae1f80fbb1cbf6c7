import { movement } from './movement'
import { pages } from './pages'
import { shuffleOptions } from './shuffle-options'
import { wrongCost } from './wrong-cost'

/** Rules that are frozen with the content of an edition, in the order of their sentences. */
export const contentRules = { movement, pages, shuffleOptions, wrongCost }
