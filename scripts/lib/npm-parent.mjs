import { readFileSync } from 'node:fs'

/** The process that started another (proc(5), field 4 of stat); null where that cannot be told. */
function parentOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1')
    return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1])
  } catch {
    return null
  }
}

function nameOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'latin1')
  } catch {
    return ''
  }
}

const every = 500

/**
 * Calls `gone` when npm, which runs this script through a shell, has been killed outright and could not pass that on.
 * Nothing is watched where npm did not run it.
 */
export function watchNpm(gone) {
  if (!process.env.npm_lifecycle_event || process.platform !== 'linux') return
  const line = [process.pid]
  const isNpm = (pid) => /^npm|npm-cli/.test(nameOf(pid))
  while (!isNpm(line.at(-1))) {
    const parent = parentOf(line.at(-1))
    // Further up there is nothing of npm's.
    if (!parent || parent === 1 || line.length > 3) return
    line.push(parent)
  }
  const timer = setInterval(() => {
    if (line.slice(0, -1).every((pid, i) => parentOf(pid) === line[i + 1])) return
    clearInterval(timer)
    gone()
  }, every)
  timer.unref()
}
