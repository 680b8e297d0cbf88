import password from '@inquirer/password'
import { LauncherError } from './output.js'

/** Asks at the terminal for something that nobody may see. @param {string} message */
export const askHidden = (message) => password({ message, mask: true }, { output: process.stderr })

/** Reads all of standard input, without the end of its last line. */
export async function standardInput() {
  let text = ''
  for await (const chunk of process.stdin) text += chunk
  return text.trimEnd()
}

/**
 * The passphrase of backups: from the environment, or asked for once.
 * @param {NodeJS.ProcessEnv} env
 * @returns {() => Promise<string>}
 */
export function passphraseOf(env) {
  let given = env.UVANTA_BACKUP_PASSPHRASE ?? ''
  return async () => {
    if (!given && process.stdin.isTTY) given = await askHidden('Passphrase of the backup:')
    if (!given)
      throw new LauncherError(
        'the backup has a passphrase: set UVANTA_BACKUP_PASSPHRASE, or run this at a terminal.',
      )
    return given
  }
}
