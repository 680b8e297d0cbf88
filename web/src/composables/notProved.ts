/** Nobody proved himself to an authenticator: put off, out of time, or it has a passkey already. */
export class NotProved extends Error {}
