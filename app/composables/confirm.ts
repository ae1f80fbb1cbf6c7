interface Asked {
  title: string
  words: string
  yes: string
  no: string
  answer: (yes: boolean) => void
}
const asked = shallowRef<Asked | null>(null)

/** What is being asked, for the one dialog that shows it. */
export function useConfirmation() {
  return { asked: readonly(asked) }
}

/**
 * Asks a person before something that cannot be undone, in the page's own dialog (`ConfirmDialog`, in the usual layout;
 * a sitting asks nothing of the kind and does not load it).
 * @param yes what the button says that does it; `no` what the other says
 * @returns whether they said yes; closing the dialog is no
 */
export function confirmed(title: string, words: string, yes: string, no = 'Stay here'): Promise<boolean> {
  asked.value?.answer(false)
  return new Promise((done) => {
    asked.value = {
      title,
      words,
      yes,
      no,
      answer(said) {
        asked.value = null
        done(said)
      },
    }
  })
}
