import { questionRoutes } from '~/client/questions'
import { count } from '~~/core/kit/phrases'

type Change = Parameters<typeof questionRoutes.changeMany>[0]['body']['change']

/** Changes many questions of the bank at once, says what it did, and offers to take it back. @param done after either */
export function useChangeMany(done: () => void) {
  const { problem, busy, act } = useAct()

  const change = (questions: string[], by: Change, words: string) =>
    act(async () => {
      const { change: id, changed, refused } = await questionRoutes.changeMany({ body: { questions, change: by } })
      announce(
        `${words}: ${count(changed, 'question')}.${refused ? ` ${refused} belong to colleagues and stay as they are.` : ''}`,
        changed ? () => void undo(id) : null,
      )
      done()
    })
  const undo = (id: string) =>
    act(async () => {
      const { undone, kept } = await questionRoutes.undoChange({ id })
      announce(`Taken back: ${undone}.${kept ? ` ${kept} had been changed since and stay.` : ''}`)
      done()
    })
  return { problem, busy, change }
}

/** A seed for something that is shuffled anew each time. */
export const anySeed = () => crypto.getRandomValues(new Uint32Array(1))[0]!
