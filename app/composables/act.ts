/**
 * Something a person does that the server has to agree to: what went wrong stands in `problem` as a sentence, what has
 * happened is announced, and `busy` keeps a button from being pressed twice.
 */
export function useAct() {
  const problem = ref('')
  const busy = ref(false)

  /**
   * @param said what is announced when it has been done; may be made of the reply
   * @param takeBack what undoes it, offered beside the words
   * @returns the reply, or undefined when it was refused
   */
  async function act<T>(
    work: () => Promise<T>,
    said: string | ((reply: T) => string) = '',
    takeBack: ((reply: T) => void) | null = null,
  ): Promise<T | undefined> {
    problem.value = ''
    busy.value = true
    try {
      const reply = await work()
      const words = typeof said === 'string' ? said : said(reply)
      if (words)
        announce(
          words,
          takeBack
            ? () => {
                takeBack(reply)
              }
            : null,
        )
      return reply
    } catch (error) {
      problem.value = sentenceOf(error)
      return undefined
    } finally {
      busy.value = false
    }
  }
  return { problem, busy, act }
}
