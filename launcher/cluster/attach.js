import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { makeData, usersOf } from '../database.js'
import { takeLock } from '../lock.js'
import { LauncherError, step } from '../output.js'
import { CLUSTER_PROGRAMS, DATABASE_PROGRAMS, needPrograms } from '../programs.js'
import {
  allowBegin,
  clusterHome,
  isSynced,
  newestNode,
  nodeDatabase,
  nodeHome,
  NODES,
  portsOf,
  startNode,
  untilSynced,
  withTransferPrograms,
} from './nodes.js'

/** @typedef {import('../settings.js').Installation} Installation */

/**
 * A node of the running cluster that has all data, and best one that is not written to.
 * @param {Installation} installation
 */
export async function syncedNode(installation) {
  for (const node of NODES.toReversed()) if (await isSynced(installation, node)) return node
  throw new LauncherError(
    `no node of the cluster has all data; see error.log in ${clusterHome(installation.data)}/node1, node2 and node3`,
  )
}

/**
 * Takes the directory, and makes everything ready that nodes need.
 * @param {Installation} given
 * @param {import('../lock.js').Holder['as']} as
 */
export async function prepareNodes(given, as) {
  await needPrograms(given, { ...DATABASE_PROGRAMS, ...CLUSTER_PROGRAMS })
  await takeLock(given.data, as)
  const home = clusterHome(given.data)
  mkdirSync(home, { recursive: true })
  const installation = await withTransferPrograms(given)
  const first = `CREATE DATABASE IF NOT EXISTS uvanta;\n${usersOf(installation)}CREATE USER IF NOT EXISTS 'uvanta_check'@'127.0.0.1';\n`
  for (const node of NODES) {
    const at = nodeHome(given.data, node)
    if (!existsSync(join(at, 'data'))) step(`Creating the data of node ${node}`)
    await makeData(at, installation.env)
    rmSync(join(at, 'init.sql'), { force: true })
    writeFileSync(join(at, 'init.sql'), first, { mode: 0o600 })
  }
  return installation
}

/**
 * Starts the node that has come furthest, as the first of its cluster: begun with another one, what only it holds
 * would be lost.
 * @param {Installation} installation
 */
export async function beginCluster(installation) {
  const node = await newestNode(installation)
  allowBegin(installation.data, node)
  const child = await startNode(installation, node, ['--wsrep-new-cluster'])
  await untilSynced(installation, node, child)
  return node
}

/**
 * Starts one node of a cluster that does not run, for a command.
 * @param {Installation} given
 */
export async function nodeAlone(given) {
  const installation = await prepareNodes(given, 'command')
  step('Starting the node that has come furthest')
  const node = await beginCluster(installation)
  return {
    installation,
    node,
    port: portsOf(installation).sql(node),
    database: nodeDatabase(installation, node),
  }
}
