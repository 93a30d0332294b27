import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, unwrap } from '../../api/client'
import type { Evidence } from '../../api/types'
import { useSession } from '../../session/session'
import { Button } from '../../ui/Button'
import { MarkIcon } from '../../ui/Verdict'
import { SignDialog } from './SignDialog'
import { type Kind } from './fields'
import type { ListProps } from './Specimens'
import { Signed } from './SignedPanel'
import { AmendDialog } from './AmendDialog'
import { WelderTestPanel } from './WelderTestPanel'

export function ReportPanel({
  evidence,
  onNew,
  locked,
}: {
  evidence: Evidence
  onNew: ListProps['onNew']
  locked: boolean
}) {
  const { may } = useSession()
  const queries = useQueryClient()
  const [signing, setSigning] = useState<'record' | 'witness' | 'void' | null>(null)
  const [amending, setAmending] = useState(false)
  const { report, signed } = evidence
  const sign = async (signature: { password: string; reason: string }) => {
    await (signing === 'void' && signed
      ? unwrap(
          api.POST('/api/records/{record_id}/void', { params: { path: { record_id: signed.id } }, body: signature }),
        )
      : signing === 'witness' && signed
        ? unwrap(
            api.POST('/api/records/{record_id}/witness', {
              params: { path: { record_id: signed.id } },
              body: signature,
            }),
          )
        : unwrap(
            api.POST('/api/coupons/{coupon_id}/sign', {
              params: { path: { coupon_id: evidence.coupon_id } },
              body: signature,
            }),
          ))
    await queries.invalidateQueries()
  }
  return (
    <section aria-label={t`Verdict`} className="grid content-start gap-3 max-[1150px]:col-span-2">
      <WelderTestPanel couponId={evidence.coupon_id} />
      {report.retests.map((one) => (
        <div key={one.specimen} className="panel p-3 text-[13px]">
          <h3 className="flex items-center gap-1.5 font-head text-[16px] font-semibold">
            <MarkIcon mark={one.state === 'passed' ? 'holds' : 'breach'} /> <Trans>{one.specimen} failed</Trans>
            {one.state === 'passed' && t`, repeated`}
          </h3>
          <p>
            {one.state === 'passed'
              ? t`${one.made} retests were accepted in its place.`
              : one.state === 'failed'
                ? t`A retest failed: the test is lost. Weld another coupon.`
                : t`${one.words[0]?.toUpperCase() ?? ''}${one.words.slice(1)}: ${one.made} of ${one.needed} accepted.`}
          </p>
          <p className="text-[11.5px] text-steel2">{one.clause}</p>
          {one.state === 'open' && !locked && (
            <Button
              className="mt-2"
              onClick={() =>
                onNew(one.kind as Kind, `${one.specimen}-R${String(one.made + 1)}`, { retest_of: one.specimen })
              }
            >
              <Trans>Enter a retest</Trans>
            </Button>
          )}
        </div>
      ))}
      {report.missing.length > 0 && !signed && (
        <div className="panel p-3">
          <h3 className="mb-1 font-head text-[16px] font-semibold">
            <Trans>Still missing</Trans>
          </h3>
          <ul className="list-disc pl-4 text-[13px]">
            {report.missing.slice(0, 14).map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
          {report.missing.length > 14 && (
            <p className="text-[12.5px] text-steel2">
              <Trans>and {report.missing.length - 14} more</Trans>
            </p>
          )}
        </div>
      )}
      {report.findings.map((one) => (
        <div key={one.path + one.title} className="panel p-3 text-[13px]">
          <h3 className="font-semibold">{one.title}</h3>
          <p>{one.message}</p>
          <p className="text-steel2">{one.remedy}</p>
        </div>
      ))}
      {signed ? (
        <Signed
          evidence={evidence}
          signed={signed}
          onWitness={() => setSigning('witness')}
          onVoid={() => setSigning('void')}
          onAmend={() => setAmending(true)}
        />
      ) : (
        may('SIGN_RECORD') && (
          <div>
            <Button
              look="main"
              className="w-full"
              disabled={report.verdict !== 'accepted'}
              onClick={() => setSigning('record')}
            >
              <Trans>Sign the record</Trans>
            </Button>
            <p className="mt-1 text-[12.5px] text-steel2">
              {report.verdict === 'accepted'
                ? t`Signing freezes the log and the tests.`
                : t`A record is signed once every test is accepted.`}
            </p>
          </div>
        )
      )}
      <p className="flex flex-wrap gap-x-3 text-[13px]">
        <a
          className="link inline-block min-h-6"
          href={`/api/coupons/${String(evidence.coupon_id)}/record/print`}
          target="_blank"
          rel="noreferrer"
        >
          <Trans>Print the record</Trans>
        </a>
        <a className="link inline-block min-h-6" href={`/api/coupons/${String(evidence.coupon_id)}/record`} download="">
          <Trans>Export JSON</Trans>
        </a>
        <a
          className="link inline-block min-h-6"
          href={`/api/coupons/${String(evidence.coupon_id)}/record/table`}
          download=""
        >
          <Trans>Export XLSX</Trans>
        </a>
      </p>
      {amending && signed && (
        <AmendDialog recordId={signed.id} number={signed.number} onClose={() => setAmending(false)} />
      )}
      <SignDialog
        open={signing !== null}
        onClose={() => setSigning(null)}
        onSign={sign}
        title={
          signing === 'void'
            ? t`Declare the record void`
            : signing === 'witness'
              ? t`Sign as a witness`
              : t`Sign ${evidence.record_word} ${evidence.record_number}`
        }
        words={
          signing === 'void'
            ? t`It stays with its signatures, is printed with VOID across every page, and qualifies nothing from now on. Procedures in production that rest on it are listed in the code book.`
            : signing === 'witness'
              ? t`You were there when the coupon was welded and tested, and what is recorded is what you saw.`
              : t`The log and the tests are what was welded and found. After this they no longer change.`
        }
        action={t`Sign it`}
        reason={signing === 'void' ? t`Why` : t`Remarks`}
      />
    </section>
  )
}
