/** How often a sound of a paper has been played on this device, by page and address. */
const key = (source: string) => `thistle:plays:${location.pathname}:${source}`
const played = (source: string) => Number(localStorage.getItem(key(source)) ?? 0)

/**
 * Keeps a sound or film to the number of plays that its author set (`data-plays`). Its own controls would let it be
 * wound back, so it gets one button that starts it, and says how often it may still be played.
 */
export function limitPlays(element: HTMLMediaElement): void {
  const most = Number(element.dataset.plays)
  const source = element.getAttribute('src') ?? ''
  if (!most || element.nextElementSibling?.classList.contains('plays')) return
  element.controls = false
  const button = document.createElement('button')
  button.type = 'button'
  button.className = 'btn plays mt-2'
  const say = () => {
    const left = most - played(source)
    button.disabled = left <= 0 || !element.paused
    const name = element.getAttribute('aria-label') ?? ''
    button.textContent = element.paused
      ? left > 0
        ? `Play ${name} (${left} ${left === 1 ? 'time' : 'times'} left)`.replace('  ', ' ')
        : 'Played as often as it may be'
      : 'Playing …'
  }
  button.addEventListener('click', () => {
    localStorage.setItem(key(source), String(played(source) + 1))
    element.currentTime = 0
    void element.play().then(say, say)
  })
  element.addEventListener('ended', say)
  element.addEventListener('pause', say)
  element.after(button)
  say()
}
