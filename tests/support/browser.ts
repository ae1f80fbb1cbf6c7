import { chromium, type Browser, type BrowserContext, type Page, type Request } from 'playwright-core'

let browser: Browser | undefined

/** Debian's Chromium with a fresh profile; it looks nothing up elsewhere. */
export async function openBrowser(): Promise<Browser> {
  return (browser ??= await chromium.launch({
    executablePath: process.env.THISTLE_CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      // A microphone that beeps, and nobody asked for leave: recordings are tested as they are.
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
    ],
  }))
}

export async function closeBrowser(): Promise<void> {
  await browser?.close()
  browser = undefined
  visitors.clear()
}

/** Everybody who has a browser open: what is kept when a test fails (keep-pages.ts). */
export const visitors = new Set<Visitor>()

export interface Visitor {
  context: BrowserContext
  page: Page
  faults: string[]
  /** Waits until the page has asked for nothing for half a second; a line that stays open for news does not count. */
  quiet: () => Promise<void>
}

const still = 500
/** Follows what a page asks for. */
function quietOf(page: Page): () => Promise<void> {
  const open = new Set<Request>()
  let waiting: (() => void)[] = []
  let timer: NodeJS.Timeout | undefined
  const look = () => {
    clearTimeout(timer)
    if (open.size) return
    timer = setTimeout(() => {
      for (const go of waiting) go()
      waiting = []
    }, still)
  }
  page.on('request', (request) => {
    if (request.resourceType() === 'eventsource') return
    open.add(request)
    clearTimeout(timer)
  })
  for (const end of ['requestfinished', 'requestfailed'] as const)
    page.on(end as 'requestfinished', (request: Request) => {
      open.delete(request)
      look()
    })
  return () =>
    new Promise((go) => {
      waiting.push(go)
      look()
    })
}

/** Traces take a fifth of the time of all browser tests: they are kept where somebody looks for a fault. */
export const keepsTraces = process.env.THISTLE_TRACES === 'on'

/** Somebody with a browser of their own, signed in through the page as a person of the demo school. */
export async function visitor(
  address: string,
  name: string | null,
  size = { width: 1280, height: 800 },
): Promise<Visitor> {
  const context = await (await openBrowser()).newContext({ viewport: size, baseURL: address, reducedMotion: 'reduce' })
  if (keepsTraces) {
    await context.tracing.start({ snapshots: true })
    await context.tracing.startChunk()
  }
  const page = await context.newPage()
  const quiet = quietOf(page)
  page.setDefaultTimeout(20_000)
  const faults: string[] = []
  page.on('pageerror', (error) => faults.push(error.message))
  page.on('console', (message) => {
    if (message.type() === 'error' && !/Failed to load resource|ERR_INTERNET_DISCONNECTED/.test(message.text()))
      faults.push(message.text())
  })
  // No page should ask unexpectedly whether to leave: what was written would seem unkept.
  page.on('dialog', (dialog) => {
    faults.push(`asked: ${dialog.message()}`)
    void dialog.dismiss()
  })
  await page.goto('/')
  if (name) {
    await page.getByRole('button', { name, exact: true }).click()
    await page.waitForURL((url) => !url.pathname.startsWith('/sign-in'))
  }
  const made = { context, page, faults, quiet }
  visitors.add(made)
  context.on('close', () => visitors.delete(made))
  return made
}
