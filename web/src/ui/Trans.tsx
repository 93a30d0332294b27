import { i18n } from '@lingui/core'
import { TransNoContext, type TransProps } from '@lingui/react/server'

/** A text with elements in it. The language was chosen before anything is drawn, so nothing need be around it. */
export function Trans(props: TransProps) {
  return <TransNoContext {...props} lingui={{ i18n }} />
}
