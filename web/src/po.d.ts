declare module '*.po' {
  import type { Messages } from '@lingui/core'
  export const messages: Messages
}

/** The shape of what the server answers, as a digest. */
declare const __SHAPE__: string
