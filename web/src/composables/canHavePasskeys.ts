/** Whether there can be passkeys: the browser knows them, and the address is a name and no number. */
export const canHavePasskeys = (): boolean =>
  typeof PublicKeyCredential === 'function' && !/^[\d.]+$|:/.test(location.hostname)
