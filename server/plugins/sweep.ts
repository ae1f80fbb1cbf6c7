import { serverNow } from '../clock'
import { currentDatabase } from '../database/current'
import { dropAbandoned, forgetImports } from '../domain/imports/untake'
import { forgetBrowsers } from '../people/known-browsers'
import { forgetSessions } from '../people/sessions'
import { forgetPasses } from '../people/passes'
import { forgetTries } from '../people/tries'
import { forgetNames } from '../domain/people/nameless'
import { forgetLetters } from '../domain/outbox'
import { forgetPresence } from '../domain/quizzes/presence'
import { settle } from '../domain/sittings/end'

/** Every process ends sittings that are past their hard stop, and what has had its time (imports left half way, sessions, tries), at its own uneven pace. */
export default defineNitroPlugin((nitro) => {
  const pause = Number(process.env.THISTLE_SWEEP_SECONDS ?? 10) * 1000
  let timer: NodeJS.Timeout
  const sweep = async () => {
    try {
      while ((await settle(currentDatabase(), {}, serverNow())) === 50);
      await dropAbandoned(currentDatabase(), serverNow())
      for (const forget of [
        forgetPresence,
        forgetSessions,
        forgetBrowsers,
        forgetTries,
        forgetImports,
        forgetPasses,
        forgetLetters,
        forgetNames,
      ])
        await forget(currentDatabase(), serverNow())
    } catch (error) {
      console.error('sweep', error)
    }
    timer = setTimeout(sweep, pause * (0.5 + Math.random()))
  }
  timer = setTimeout(sweep, pause * Math.random())
  nitro.hooks.hook('close', () => clearTimeout(timer))
})
