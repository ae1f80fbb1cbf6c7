import { announced } from './announced'
import { anonymous } from './anonymous'
import { atClosing } from './at-closing'
import { atDeadline } from './at-deadline'
import { attempts } from './attempts'
import { best } from './best'
import { counts } from './counts'
import { done } from './done'
import { grace } from './grace'
import { grade } from './grade'
import { gradebook } from './gradebook'
import { heldBack } from './held-back'
import { late } from './late'
import { limit } from './limit'
import { link } from './link'
import { needs } from './needs'
import { notices } from './notices'
import { oneSitting } from './one-sitting'
import { overrun } from './overrun'
import { password } from './password'
import { places } from './places'
import { progress } from './progress'
import { receipt } from './receipt'
import { release } from './release'
import { tools } from './tools'
import { voluntary } from './voluntary'
import { working } from './working'
import { watched } from './watched'
import { windows } from './windows'

/**
 * The living rules of a quiz, in the order in which they are read. Rules of each window are in `window/index.ts`, those
 * that are frozen with the content in `content/index.ts`.
 */
export const quizRules = {
  windows,
  link,
  announced,
  heldBack,
  voluntary,
  places,
  anonymous,
  limit,
  needs,
  grace,
  atDeadline,
  overrun,
  atClosing,
  password,
  tools,
  progress,
  oneSitting,
  watched,
  working,
  counts,
  attempts,
  grade,
  gradebook,
  done,
  late,
  release,
  best,
  receipt,
  notices,
}
