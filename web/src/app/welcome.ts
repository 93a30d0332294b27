/** Where the link of an invitation leads; what it carries stands behind a #. */
export const WELCOME = '/welcome'
