import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { welderTestQuery } from '../../queries/crew'
import { useSession } from '../../session/session'
import { MarkIcon } from '../../ui/Verdict'

/** The coupon as the test of its welder: one piece may serve for both. */
export function WelderTestPanel({ couponId }: { couponId: number }) {
  const { may } = useSession()
  const found = useQuery(welderTestQuery(couponId))
  if (!found.data) return null
  const { welder, designation, missing, member_id: member, certificates } = found.data
  return (
    <section aria-label={t`As the test of its welder`} className="panel p-3 text-[13px]">
      <h3 className="font-head text-[16px] font-semibold">{t`As the test of its welder`}</h3>
      <p className="break-words">{[welder, designation].filter(Boolean).join(': ')}</p>
      {missing.length > 0 && (
        <ul className="mt-1 grid gap-0.5 text-steel">
          {missing.map((one) => (
            <li key={one} className="flex items-baseline gap-1.5">
              <MarkIcon mark="unknown" size={10} silent />
              <span className="min-w-0">{one}</span>
            </li>
          ))}
        </ul>
      )}
      {certificates.length > 0 && (
        <p className="mt-1 flex items-baseline gap-1.5">
          <MarkIcon mark="holds" size={10} silent />
          {t`Certificate ${certificates.join(', ')} is signed.`}
        </p>
      )}
      {welder && member === null && (
        <p className="mt-1 text-steel">
          <Trans>
            {welder} is not in the{' '}
            <Link to="/crew" className="link">
              crew list
            </Link>{' '}
            yet.
          </Trans>
        </p>
      )}
      {member !== null && certificates.length === 0 && may('SIGN_CERTIFICATE') && (
        <Link className="link mt-1 inline-block" to={`/crew/${String(member)}?coupon=${String(couponId)}`}>
          <Trans>Write the certificate of {welder}</Trans>
        </Link>
      )}
    </section>
  )
}
