import { chromium, type Browser, type BrowserContext, type Page } from 'playwright-core'

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

/** Everybody who has a browser open: what is kept when a test fails (keep-traces.ts). */
export const visitors = new Set<Visitor>()

export interface Visitor {
  context: BrowserContext
  page: Page
  faults: string[]
}

/** Somebody with a browser of their own, signed in through the page as a person of the demo school. */
export async function visitor(
  address: string,
  name: string | null,
  size = { width: 1280, height: 800 },
): Promise<Visitor> {
  const context = await (await openBrowser()).newContext({ viewport: size, baseURL: address, reducedMotion: 'reduce' })
  await context.tracing.start({ snapshots: true })
  await context.tracing.startChunk()
  const page = await context.newPage()
  page.setDefaultTimeout(10_000)
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
  const made = { context, page, faults }
  visitors.add(made)
  context.on('close', () => visitors.delete(made))
  return made
}
