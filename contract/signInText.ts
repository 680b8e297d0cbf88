/** What a device signs to sign its person in. */
export const signInText = (challenge: string): string => `Uvanta sign-in ${challenge}`
