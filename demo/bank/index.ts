import { buoyage, passage, safety, weather } from './buoyage-and-more'
import { chartwork } from './chartwork'
import { rulesOfTheRoad } from './rules-of-the-road'
import { tides } from './tides'
import type { DemoQuestion } from './write'

/** The demo school's bank. */
export const bank: DemoQuestion[] = [...tides, ...chartwork, ...rulesOfTheRoad, ...buoyage, ...weather, ...passage, ...safety]
