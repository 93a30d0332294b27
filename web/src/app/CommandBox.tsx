import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { couponsQuery } from '../queries/coupons'
import { proceduresQuery } from '../queries/procedures'
import { useSession } from '../session/session'
import { useUnits } from '../session/units'
import { inWords } from '../domain/words'

type Command = { key: string; words: string; hint: string; run: () => void }
type Props = { open: boolean; onClose: () => void; onKeys: () => void; job: { id: number } | null }

/** Ctrl K: every procedure, coupon and action by name. */
export function CommandBox({ open, onClose, onKeys, job }: Props) {
  return (
    <Dialog open={open} onClose={onClose} className="relative z-50">
      <div className="fixed inset-0 bg-ink/40" aria-hidden="true" />
      <div className="fixed inset-0 grid place-items-start justify-center p-4 pt-[12vh]">
        <DialogPanel className="panel w-[92vw] max-w-lg">
          {job && <Search onClose={onClose} onKeys={onKeys} jobId={job.id} />}
        </DialogPanel>
      </div>
    </Dialog>
  )
}

function Search({ onClose, onKeys, jobId }: { onClose: () => void; onKeys: () => void; jobId: number }) {
  const navigate = useNavigate()
  const { may, signOut } = useSession()
  const { system, setSystem } = useUnits()
  const procedures = useQuery(proceduresQuery(jobId))
  const coupons = useQuery(couponsQuery(jobId))
  const [text, setText] = useState('')
  const go = (to: string) => () => void navigate(to)
  const commands: Command[] = [
    ...(procedures.data ?? []).map((one) => ({
      key: `p${String(one.id)}`,
      words: `${one.number} ${one.title}`,
      hint: t`procedure, ${inWords(one.stage)}`,
      run: go(`/procedures/${String(one.id)}`),
    })),
    ...(coupons.data ?? []).map((one) => ({
      key: `c${String(one.id)}`,
      words: t`${one.number} for ${one.procedure_number} ${one.title}`,
      hint: t`coupon, ${one.status}`,
      run: go(`/coupons/${String(one.id)}`),
    })),
    ...(may('WRITE_PROCEDURE')
      ? [
          { key: 'six', words: t`Draft from six answers`, hint: t`new`, run: go('/procedures/draft') },
          { key: 'new', words: t`Draft a procedure`, hint: t`new`, run: go('/procedures?new=1') },
        ]
      : []),
    { key: 'compare', words: t`Compare two drafts`, hint: t`procedures`, run: go('/procedures/compare') },
    ...(may('IMPORT')
      ? [{ key: 'import', words: t`Import a document`, hint: 'file', run: go('/procedures?import=1') }]
      : []),
    {
      key: 'calculators',
      words: t`Decode a filler, name a gas, reckon a carbon equivalent`,
      hint: t`calculators`,
      run: go('/calculators'),
    },
    { key: 'training', words: t`Train: short exercises`, hint: t`training`, run: go('/training') },
    { key: 'faults', words: t`Find the cause of a fault`, hint: t`bead`, run: go('/faults') },
    { key: 'try', words: t`Try a setting before the arc`, hint: t`bead`, run: go('/try') },
    { key: 'library', words: t`Look up a base metal`, hint: t`library`, run: go('/library') },
    {
      key: 'units',
      words: system === 'si' ? t`Show inches` : t`Show millimetres`,
      hint: t`units`,
      run: () => setSystem(system === 'si' ? 'us' : 'si'),
    },
    { key: 'keys', words: t`Show the keys`, hint: t`help`, run: onKeys },
    { key: 'out', words: t`Sign out`, hint: t`person`, run: signOut },
  ]
  const asked = text.toLowerCase().split(/\s+/).filter(Boolean)
  const found = commands.filter((one) => asked.every((word) => `${one.words} ${one.hint}`.toLowerCase().includes(word)))
  return (
    <Combobox
      onChange={(command: Command | null) => {
        onClose()
        command?.run()
      }}
    >
      <ComboboxInput
        autoFocus
        aria-label={t`Search or run a command`}
        className="w-full border-b border-line bg-transparent px-4 py-3 text-[16px] outline-none"
        placeholder={t`Find a procedure or coupon, or say what to do`}
        onChange={(event) => setText(event.target.value)}
      />
      <ComboboxOptions static className="max-h-80 overflow-auto py-1">
        {found.map((one) => (
          <ComboboxOption
            key={one.key}
            value={one}
            className="flex justify-between gap-4 px-4 py-1.5 data-focus:bg-accent-soft"
          >
            <span className="truncate">{one.words}</span>
            <span className="shrink-0 text-[12px] text-steel2">{one.hint}</span>
          </ComboboxOption>
        ))}
        {found.length === 0 && (
          <p className="px-4 py-3 text-steel2">
            <Trans>Nothing by that name. Try a number, a title, or “draft”.</Trans>
          </p>
        )}
      </ComboboxOptions>
    </Combobox>
  )
}
