import { buoyage, passage, safety, weather } from './buoyage-and-more'
import { everyKind } from './every-kind'
import { more } from './more'
import { onStimuli } from './stimuli'
import { worked } from './worked'
import { chartwork } from './chartwork'
import { rulesOfTheRoad } from './rules-of-the-road'
import { tides } from './tides'
import type { DemoQuestion } from './write'

/** The demo school's bank. */
export const bank: DemoQuestion[] = [
  ...tides,
  ...chartwork,
  ...rulesOfTheRoad,
  ...buoyage,
  ...weather,
  ...passage,
  ...safety,
  ...everyKind,
  ...worked,
  ...onStimuli,
  ...more,
]
