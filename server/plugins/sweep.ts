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
import { again, usualPause } from '../utils/again'

/** Every process ends sittings that are past their hard stop, and what has had its time (imports left half way, sessions, tries), at its own uneven pace. */
export default defineNitroPlugin((nitro) => {
  const end = again('sweep', usualPause(), async () => {
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
  })
  nitro.hooks.hook('close', end)
})
