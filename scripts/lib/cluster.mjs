import { chmodSync, cpSync, mkdirSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { freePort, layOutMariadb, ownOptions, serves } from './mariadb.mjs'
import { ensureFile, ensureProgram } from './packages.mjs'
import { endProgram, startProgram } from './programs.mjs'
import { CannotGoOn } from './say.mjs'

const provider = '/usr/lib/galera/libgalera_smm.so'

/** How a node is started. @param first whether it begins the cluster */
function nodeOptions({ data, ports: [port, group, increments, state] }, name, members) {
  return [
    ...ownOptions({ data: join(data, 'database'), port, log: join(data, 'mariadbd.log') }),
    `--socket=/tmp/thistle-${process.pid}-${port}.sock`,
    `--pid-file=${join(data, 'mariadbd.pid')}`,
    '--innodb-buffer-pool-size=256M',
    '--innodb-flush-log-at-trx-commit=0',
    '--binlog-format=ROW',
    '--innodb-autoinc-lock-mode=2',
    '--wsrep-on=ON',
    `--wsrep-provider=${provider}`,
    `--wsrep-cluster-address=gcomm://${members}`,
    ...(members ? [] : ['--wsrep-new-cluster']),
    '--wsrep-cluster-name=thistle',
    `--wsrep-node-name=${name}`,
    `--wsrep-node-address=127.0.0.1:${group}`,
    `--wsrep-node-incoming-address=127.0.0.1:${port}`,
    '--wsrep-sst-method=rsync',
    `--wsrep-sst-receive-address=127.0.0.1:${state}`,
    `--wsrep-provider-options=base_host=127.0.0.1;base_port=${group};gmcast.listen_addr=tcp://127.0.0.1:${group};ist.recv_addr=127.0.0.1:${increments};gcache.size=64M`,
  ]
}

async function startNode(node, name, members) {
  const server = await ensureProgram('mariadbd', 'mariadb-server')
  const child = startProgram(server, nodeOptions(node, name, members), { stdio: 'ignore' })
  if (!(await serves(child, node.ports[0], 120)))
    throw new CannotGoOn(`${name} of the cluster did not start; ${join(node.data, 'mariadbd.log')} says more.`)
  return child
}

/** What receives a data folder for a node that root runs is nobody in particular. */
function openToAll(folder) {
  chmodSync(folder, 0o777)
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name)
    if (entry.isDirectory()) openToAll(path)
    else chmodSync(path, 0o666)
  }
}

async function nodeIn(data) {
  mkdirSync(data, { recursive: true })
  return { data, ports: [await freePort(), await freePort(), await freePort(), await freePort()] }
}

/**
 * A Galera cluster of throw-away nodes on loopback, from Debian's packages. The first brings its data; the others are
 * sent it.
 * @returns {Promise<{ url: string, kill: () => Promise<void>, stop: () => Promise<void> }[]>} its nodes
 */
export async function startCluster(folder, number = 3) {
  await ensureFile(provider, 'galera-4')
  await ensureProgram('rsync', 'rsync')
  await ensureProgram('lsof', 'lsof')
  const { url, launch } = await layOutMariadb(folder, { quick: true })
  await endProgram(await launch(), 30_000)
  chmodSync(folder, 0o755)
  const nodes = []
  for (let i = 1; i <= number; i++) {
    const node = await nodeIn(join(folder, `node-${i}`))
    cpSync(join(folder, 'database'), join(node.data, 'database'), { recursive: true })
    openToAll(node.data)
    nodes.push(node)
  }
  const started = []
  for (const [i, node] of nodes.entries()) {
    const members = i
      ? nodes
          .slice(0, i)
          .map(({ ports }) => `127.0.0.1:${ports[1]}`)
          .join(',')
      : ''
    const child = await startNode(node, `node-${i + 1}`, members)
    const address = new URL(url)
    address.port = String(node.ports[0])
    const ended = new Promise((done) => child.once('exit', done))
    started.push({
      url: address.href,
      kill: () => {
        process.kill(child.pid, 'SIGKILL')
        return ended
      },
      stop: () => endProgram(child, 20_000),
    })
  }
  return started
}
