import { t } from '@lingui/core/macro'
import { inWords } from '../../domain/words'
import { Trans } from '@lingui/react/macro'
import { Menu, MenuButton, MenuItems } from '@headlessui/react'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { Coupon } from '../../api/types'
import { useSession } from '../../session/session'
import { useUnits } from '../../session/units'
import { printedInTwo } from '../../ui/printedInTwo'
import { Button } from '../../ui/Button'
import { PageTitle } from '../../ui/PageTitle'
import { CouponTabs } from '../evidence'
import { TakeLogDialog } from './TakeLogDialog'
import { MenuAction, MenuFile, MenuLink } from '../../ui/MenuEntry'

/** What the coupon is for, how far it is, and what can be done with it as a whole. */
export function RunLogHead({
  coupon,
  booth,
  onBooth,
  away,
}: {
  coupon: Coupon
  booth: boolean
  onBooth: () => void
  away: string | null
}) {
  const { may } = useSession()
  const queries = useQueryClient()
  const finish = useMutation({
    mutationFn: (status: 'welding' | 'welded') =>
      unwrap(
        api.PATCH('/api/coupons/{coupon_id}', {
          params: { path: { coupon_id: coupon.id } },
          body: { version: coupon.version, status },
        }),
      ),
    onSettled: () => queries.invalidateQueries(),
  })
  const welder = coupon.people.find((one) => one.role === 'welder')?.name
  const thickness = useUnits()
  const [taking, setTaking] = useState(false)
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
      <div className="min-w-0">
        <PageTitle words={t`Coupon ${coupon.number}`} className="truncate" />
        <p className="text-[14px] text-steel2">
          <Trans>
            for{' '}
            <Link className="link" to={`/procedures/${coupon.revision_id}`}>
              {coupon.procedure_number} rev {coupon.letter}
            </Link>{' '}
            ·{' '}
          </Trans>
          {[
            coupon.piece.product && inWords(coupon.piece.product),
            ...[...new Set(coupon.piece.thickness_mm)].map(
              (value) => `${thickness.value(value, 'thickness')} ${thickness.unit('thickness')}`,
            ),
            coupon.piece.position,
            welder && t`${welder} welds`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
      </div>
      <CouponTabs id={coupon.id} />
      <p className="text-[13px] text-steel2" role="status">
        {away ? (
          <b className="text-breach">{away}</b>
        ) : (
          t`${coupon.rows.length} of ${coupon.procedure.passes.length} passes logged`
        )}
      </p>
      <div className="ml-auto flex items-center gap-2">
        <Button onClick={onBooth} aria-pressed={booth}>
          {booth ? t`Light` : t`Booth`}
        </Button>
        <a
          className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium"
          href={`/api/coupons/${String(coupon.id)}/print`}
          target="_blank"
          rel="noreferrer"
        >
          <Trans>Print</Trans>
        </a>
        <Menu>
          <MenuButton className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium">
            <Trans>More</Trans>
          </MenuButton>
          <MenuItems anchor="bottom end" className="panel z-50 py-1 text-[14px] focus:outline-none">
            {printedInTwo().map(([second, words]) => (
              <MenuFile download key={second} href={`/api/coupons/${String(coupon.id)}/print?second=${second}`}>
                {words}
              </MenuFile>
            ))}
            <MenuFile download href={`/api/coupons/${String(coupon.id)}/export`}>
              <Trans>Export JSON</Trans>
            </MenuFile>
            <MenuFile download href={`/api/coupons/${String(coupon.id)}/table?kind=xlsx`}>
              <Trans>Export the log as XLSX</Trans>
            </MenuFile>
            <MenuFile download href={`/api/coupons/${String(coupon.id)}/table?kind=csv`}>
              <Trans>Export the log as CSV</Trans>
            </MenuFile>
            <MenuFile download href={`/api/coupons/${String(coupon.id)}/table?kind=xlsx&empty=true`}>
              <Trans>Template for a hand-written log</Trans>
            </MenuFile>
            {may('LOG_PASS') && coupon.status === 'welding' && (
              <MenuAction onClick={() => setTaking(true)}>
                <Trans>Take a log from CSV or XLSX</Trans>
              </MenuAction>
            )}
            {may('LOG_TRIAL') && (
              <MenuLink to={`/procedures/${String(coupon.revision_id)}/scrap`}>
                <Trans>Trial weld</Trans>
              </MenuLink>
            )}
          </MenuItems>
        </Menu>
        {may('CLOSE_LOG') && !coupon.signed_record && (
          <Button
            disabled={finish.isPending}
            onClick={() => finish.mutate(coupon.status === 'welding' ? 'welded' : 'welding')}
          >
            {coupon.status === 'welding' ? t`Close the log` : t`Open the log again`}
          </Button>
        )}
      </div>
      <TakeLogDialog couponId={coupon.id} open={taking} onClose={() => setTaking(false)} />
      {finish.isError && (
        <p role="alert" className="w-full text-[13px] text-breach">
          {finish.error.message}
        </p>
      )}
    </div>
  )
}
