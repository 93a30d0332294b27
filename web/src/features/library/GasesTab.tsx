import { plural, t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { keepPreviousData, useQuery } from '@tanstack/react-query'

import type { GasFound } from '../../api/types'
import { Notice } from '../../ui/Notice'
import { Sources } from '../../ui/Sources'
import { gasQuery } from '../../queries/calculators'
import { Facts, Rows } from './Rows'
import { Used } from './Used'
import { gasesQuery, listedUsedQuery } from '../../queries/library'

/** Gases that shops keep; any other mix is named as one types it. */
export function GasesTab({ text }: { text: string }) {
  const found = useQuery({ ...gasesQuery(text), placeholderData: keepPreviousData })
  const asked = useQuery({ ...gasQuery(text), enabled: text.trim() !== '', retry: false })
  const gases = found.data ?? []
  return (
    <>
      <p role="status" className="mb-2 text-[13px] text-steel2">
        {found.data ? plural(gases.length, { one: '# gas', other: '# gases' }) : ''}
        <Trans>; any other mix is named as you type it</Trans>
        {asked.data && asked.data.candidates.length > 0 && (
          <>
            . <b>{asked.data.reason}</b>
          </>
        )}
      </p>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {found.data && gases.length === 0 && (
        <p className="panel p-6 text-steel">
          {asked.isError ? `${asked.error.message}.` : t`No gas by that name.`}{' '}
          <Trans>Write a mix such as Ar+18CO2.</Trans>
        </p>
      )}
      <Rows
        label={t`Gases`}
        heads={[t`Gas`, t`ISO 14175`, t`AWS A5.32, older form`, t`Nature`, t`Used for`]}
        lines={gases.map((one) => ({
          key: one.written,
          cells: [
            one.written,
            one.symbol.iso_14175_mix,
            one.symbol.aws_a5_32,
            one.symbol.nature || t`not listed`,
            one.use || '—',
          ],
          details: () => <Details one={one} />,
        }))}
      />
    </>
  )
}

function Details({ one }: { one: GasFound }) {
  const modes = useQuery(gasQuery(one.written)).data?.modes
  const used = useQuery(listedUsedQuery('gas', one.written))
  return (
    <div className="grid grid-cols-3 gap-6">
      <Facts words={t`Volume, %`}>
        <p className="tabular-nums">
          {Object.entries(one.components_percent)
            .map(([name, share]) => `${name} ${String(share)}`)
            .join(' · ')}
        </p>
        <Sources citations={[one.symbol.citation]} />
      </Facts>
      <Facts words={t`Transfer of solid wire`}>
        <ul>
          {modes &&
            (['steel', 'stainless', 'aluminium'] as const).map((metal) => (
              <li key={metal}>
                {metal}:{' '}
                {[...modes[metal].usual, ...modes[metal].limited.map((mode) => t`${mode} (limited)`)]
                  .join(', ')
                  .replaceAll('-', ' ') || t`none that is sound`}
              </li>
            ))}
        </ul>
      </Facts>
      <Facts words={t`Used in`}>
        <Used found={used} />
      </Facts>
    </div>
  )
}
