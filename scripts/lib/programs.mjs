import { spawn } from 'node:child_process'
import { existsSync } from 'node:fs'

/** Programs that this process has started and that have not ended, each with how it is asked to end. */
const running = new Set()
let ending = false

/** Whether everything is being ended: what fails now failed because of that, and is nobody's news. */
export const isEnding = () => ending

/** Debian's util-linux lets a program be told when the one that started it has been killed outright. */
const setpriv = ['/usr/bin/setpriv', '/bin/setpriv'].find((path) => existsSync(path))

/**
 * Starts a program in a group of its own, so that Ctrl-C in the terminal reaches this process alone, and that ends when
 * this process does, however that comes.
 */
export function startProgram(command, args, options = {}) {
  const tied = setpriv ? [setpriv, ['--pdeathsig', 'TERM', command, ...args]] : [command, args]
  const child = spawn(...tied, { detached: true, ...options })
  running.add(child)
  child.once('exit', () => running.delete(child))
  child.once('error', () => running.delete(child))
  return child
}

function signalTo(child, signal) {
  try {
    process.kill(-child.pid, signal)
  } catch {
    /* it has ended */
  }
}

/** Ends a program: asks first, and does not wait longer than so many milliseconds. */
export function endProgram(child, patience = 5000) {
  if (child.exitCode !== null || child.signalCode !== null || child.pid === undefined) return Promise.resolve()
  return new Promise((done) => {
    const late = setTimeout(() => signalTo(child, 'SIGKILL'), patience)
    child.once('exit', () => {
      clearTimeout(late)
      done()
    })
    signalTo(child, 'SIGTERM')
  })
}

/** A database writes out what it holds. */
const longest = 20_000

/** Ends all programs, the last started first, and takes no new ones for news. */
export async function endAllPrograms() {
  ending = true
  for (const child of [...running].reverse()) await endProgram(child, longest)
}

// Whatever else ends this process, what it started does not outlive it.
process.on('exit', () => {
  for (const child of running) signalTo(child, 'SIGTERM')
})

/**
 * Runs a program to its end without holding up this process, which hears signals meanwhile.
 * @returns {Promise<{ code: number | null, said: string }>} how it ended, and the end of what it said; never where
 *   everything is being ended
 */
export function runProgram(command, args, options = {}) {
  const child = startProgram(command, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options })
  let said = ''
  const hear = (part) => {
    said = (said + part).slice(-20_000)
  }
  child.stdout?.on('data', hear)
  child.stderr?.on('data', hear)
  return new Promise((done) => {
    const tell = (result) => {
      if (!ending) done(result)
    }
    child.once('error', (error) => tell({ code: null, said: error.message }))
    child.once('close', (code) => tell({ code, said }))
  })
}
