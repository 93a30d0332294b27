import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { api, unwrap } from '../../api/client'
import type { Coupon } from '../../api/types'
import { useSession } from '../../app/session'
import { useUnits } from '../../app/units'
import { Button } from '../../ui/Button'
import { PageTitle } from '../../ui/PageTitle'
import { CouponTabs } from '../qualification'
import { TakeLogDialog } from './TakeLogDialog'

/** What the coupon is for, how far it is, and what can be done with it as a whole. */
export function RunLogHead({ coupon, booth, onBooth, away }: { coupon: Coupon; booth: boolean; onBooth: () => void; away: string | null }) {
  const { may } = useSession()
  const queries = useQueryClient()
  const finish = useMutation({
    mutationFn: (status: 'welding' | 'welded') => unwrap(api.PATCH('/api/coupons/{coupon_id}', { params: { path: { coupon_id: coupon.id } }, body: { version: coupon.version, status } })),
    onSettled: () => queries.invalidateQueries(),
  })
  const welder = coupon.people.find((one) => one.role === 'welder')?.name
  const thickness = useUnits()
  const [taking, setTaking] = useState(false)
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-1">
      <div className="min-w-0">
        <PageTitle words={`Coupon ${coupon.number}`} className="truncate" />
        <p className="text-[14px] text-steel2">
          for <Link className="link" to={`/procedures/${String(coupon.revision_id)}`}>{coupon.procedure_number} rev {coupon.letter}</Link> ·{' '}
          {[coupon.piece.product, ...[...new Set(coupon.piece.thickness_mm)].map((value) => `${thickness.value(value, 'thickness')} ${thickness.unit('thickness')}`), coupon.piece.position, welder && `${welder} welds`].filter(Boolean).join(' · ')}
        </p>
      </div>
      <CouponTabs id={coupon.id} />
      <p className="text-[13px] text-steel2" role="status">
        {away ? <b className="text-breach">{away}</b> : `${String(coupon.rows.length)} of ${String(coupon.procedure.passes.length)} passes logged`}
      </p>
      <div className="ml-auto flex items-center gap-2">
        <Button onClick={onBooth} aria-pressed={booth}>{booth ? 'Light' : 'Booth'}</Button>
        <a className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium" href={`/api/coupons/${String(coupon.id)}/print`} target="_blank" rel="noreferrer">Print</a>
        <Menu>
          <MenuButton className="rounded-sm border border-line bg-panel px-3 py-1.5 font-head text-[15px] font-medium">More</MenuButton>
          <MenuItems anchor="bottom end" className="panel z-50 py-1 text-[14px] focus:outline-none">
            <File href={`/api/coupons/${String(coupon.id)}/export`}>Export JSON</File>
            <File href={`/api/coupons/${String(coupon.id)}/table?kind=xlsx`}>Export the log as XLSX</File>
            <File href={`/api/coupons/${String(coupon.id)}/table?kind=csv`}>Export the log as CSV</File>
            <File href={`/api/coupons/${String(coupon.id)}/table?kind=xlsx&empty=true`}>Template for a hand-written log</File>
            {may('LOG_PASS') && coupon.status === 'welding' && (
              <MenuItem>
                <button type="button" className="block w-full px-4 py-1.5 text-left data-focus:bg-accent-soft" onClick={() => setTaking(true)}>Take a log from CSV or XLSX</button>
              </MenuItem>
            )}
            {may('LOG_TRIAL') && (
              <MenuItem><Link className="block px-4 py-1.5 data-focus:bg-accent-soft" to={`/procedures/${String(coupon.revision_id)}/scrap`}>Trial weld</Link></MenuItem>
            )}
          </MenuItems>
        </Menu>
        {may('CLOSE_LOG') && !coupon.signed_record && (
          <Button disabled={finish.isPending} onClick={() => finish.mutate(coupon.status === 'welding' ? 'welded' : 'welding')}>
            {coupon.status === 'welding' ? 'Close the log' : 'Open the log again'}
          </Button>
        )}
      </div>
      <TakeLogDialog couponId={coupon.id} open={taking} onClose={() => setTaking(false)} />
      {finish.isError && <p role="alert" className="w-full text-[13px] text-breach">{finish.error.message}</p>}
    </div>
  )
}

function File({ href, children }: { href: string; children: string }) {
  return (
    <MenuItem>
      <a className="block px-4 py-1.5 data-focus:bg-accent-soft" href={href} download="">{children}</a>
    </MenuItem>
  )
}
