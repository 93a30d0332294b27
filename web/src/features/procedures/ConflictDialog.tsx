import type { Procedure } from '../../api/types'
import { differences, pathWords } from '../../domain/diff'
import type { Theirs } from '../../domain/draftKeeper'
import { Button } from '../../ui/Button'
import { Modal } from '../../ui/Modal'

type Props = { mine: Procedure; theirs: Theirs; onSettle: (choice: 'mine' | 'theirs') => void }

/** Two people saved one draft: both versions, side by side, and nothing lost until one is chosen. */
export function ConflictDialog({ mine, theirs, onSettle }: Props) {
  const found = differences(mine, theirs.document)
  const time = new Date(theirs.saved_at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })
  return (
    <Modal title="Two versions of this draft" open onClose={() => undefined} wide>
      <p className="mb-3 text-steel">
        {theirs.saved_by} saved this draft at {time}, after you opened it. What you typed is kept. These {found.length} values differ:
      </p>
      <div className="mb-4 max-h-80 overflow-auto border border-line">
        <table className="w-full text-[13px]">
          <thead className="label bg-paper text-left">
            <tr>
              <th className="px-2 py-1">Field</th>
              <th className="px-2 py-1">Yours</th>
              <th className="px-2 py-1">As saved by {theirs.saved_by}</th>
            </tr>
          </thead>
          <tbody>
            {found.map((one) => (
              <tr key={one.path} className="border-t border-hair">
                <td className="px-2 py-1 text-steel">{pathWords(one.path)}</td>
                <td className="px-2 py-1 font-semibold [overflow-wrap:anywhere]">{one.mine}</td>
                <td className="px-2 py-1 [overflow-wrap:anywhere]">{one.theirs}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="flex justify-end gap-2">
        <Button onClick={() => onSettle('theirs')}>Take theirs, drop mine</Button>
        <Button look="main" onClick={() => onSettle('mine')}>
          Save mine over it
        </Button>
      </div>
    </Modal>
  )
}
