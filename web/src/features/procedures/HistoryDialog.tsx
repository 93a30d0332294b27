import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'

import { Modal } from '../../ui/Modal'
import { historyQuery } from '../../queries/procedures'
import { inWords } from '../../domain/words'
import { locale } from '../../session/language'

/** The audit trail of a revision. */
export function HistoryDialog({
  revisionId,
  open,
  onClose,
}: {
  revisionId: number
  open: boolean
  onClose: () => void
}) {
  const history = useQuery({ ...historyQuery(revisionId), enabled: open })
  return (
    <Modal title={t`History`} open={open} onClose={onClose}>
      {history.isError && <p role="alert">{history.error.message}</p>}
      <ol className="max-h-96 overflow-auto text-[13px]">
        {history.data?.map((one, index) => (
          <li key={index} className="flex justify-between gap-4 border-t border-hair py-1">
            <span>
              <Trans>
                {one.what} by {one.by}, {inWords(one.stage)}, version {one.version}
              </Trans>
            </span>
            <time className="text-steel2" dateTime={one.at}>
              {new Date(one.at).toLocaleString(locale())}
            </time>
          </li>
        ))}
      </ol>
    </Modal>
  )
}
