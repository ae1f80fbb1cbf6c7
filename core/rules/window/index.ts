import { classes, groups, students } from './classes'
import { closedAt } from './closed-at'
import { closes } from './closes'
import { due } from './due'
import { latestStart } from './latest-start'
import { password } from './password'
import { opens } from './opens'

/** Rules of each window, in the order in which its sentence names them. */
export const windowRules = { classes, groups, students, opens, closes, due, latestStart, password, closedAt }
