import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query'
import { Suspense, lazy, useEffect, useMemo, useState } from 'react'
import { RouterProvider, createBrowserRouter } from 'react-router'

import { Refusal, onSignedOut } from '../api/client'
import type { Session } from '../api/types'
import { beadRoutes } from '../features/bead'
import { calculatorRoutes } from '../features/calculators'
import { couponRoutes } from '../features/coupons'
import { crewRoutes } from '../features/crew'
import { dashboardRoutes } from '../features/dashboard'
import { faultRoutes } from '../features/faults'
import { jointRoutes } from '../features/joints'
import { productionRoutes } from '../features/production'
import { trainingRoutes } from '../features/training'
import { operationsRoutes } from '../features/operations'
import { peopleRoutes } from '../features/people'
import { procedureRoutes } from '../features/procedures'
import { codebookRoutes } from '../features/codebook/routes'
import { coverageRoutes } from '../features/coverage/routes'
import { evidenceRoutes } from '../features/evidence/routes'
import { recordingRoutes } from '../features/recordings'
import { libraryRoutes } from '../features/library'
import { Modal } from '../ui/Modal'
import { Frame } from './Frame'
import { WELCOME } from './welcome'
import { JobProvider } from '../session/job'
import { forget, keptFor } from '../session/kept'
import { NothingHere } from '../ui/NothingHere'
import { SignInForm, SignInPage } from './SignIn'
import { codesQuery, sessionQuery, signOut, signedIn, termsQuery, unitsQuery } from '../queries/session'
import { SessionContext } from '../session/session'
import { TermsProvider } from '../session/terms'
import { UnitsProvider } from '../session/units'

// Opened once by each person: it does not weigh on the first load.
const InvitationPage = lazy(async () => ({ default: (await import('./InvitationPage')).InvitationPage }))

const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <NothingHere broken />,
    children: [
      ...dashboardRoutes,
      ...jointRoutes,
      ...procedureRoutes,
      ...couponRoutes,
      ...productionRoutes,
      ...crewRoutes,
      ...peopleRoutes,
      ...operationsRoutes,
      ...evidenceRoutes,
      ...coverageRoutes,
      ...codebookRoutes,
      ...recordingRoutes,
      ...calculatorRoutes,
      ...beadRoutes,
      ...faultRoutes,
      ...trainingRoutes,
      ...libraryRoutes,
      { path: '*', element: <NothingHere /> },
    ],
  },
])

/** Sign out: what was read on this device is forgotten, whether the server answers or not. */
async function leave(queries: QueryClient) {
  await forget()
  const nobody = { person: null, demo: [] }
  const next = await signOut().catch((error: unknown) => {
    if (error instanceof Refusal && error.passing) return nobody
    throw error
  })
  await queries.cancelQueries()
  queries.removeQueries({ predicate: (one) => !OF_ALL.has(String(one.queryKey[0])) })
  queries.setQueryData(sessionQuery.queryKey, next)
}

/** What is the same for everybody, and stays. */
const OF_ALL = new Set(['session', 'units', 'codes', 'terms'])

/** The whole: session, units, and the sign-in over the page when a session ends while typing. */
export function App() {
  const queries = useQueryClient()
  const session = useQuery(sessionQuery)
  const units = useQuery(unitsQuery)
  const codes = useQuery(codesQuery)
  const terms = useQuery(termsQuery)
  const [signedOut, setSignedOut] = useState(false)
  useEffect(() => onSignedOut(() => setSignedOut(true)), [])

  const person = session.data?.person ?? null
  const personId = person?.id ?? null
  const [owner, setOwner] = useState<number | null>(null)
  useEffect(() => {
    // Nothing that was kept for somebody else is shown.
    if (personId !== null) void keptFor(personId).then(() => setOwner(personId))
  }, [personId])
  const enter = (next: Session) => {
    signedIn()
    queries.setQueryData(sessionQuery.queryKey, next)
  }
  const state = useMemo(
    () =>
      person && codes.data
        ? {
            person,
            codes: codes.data,
            signOut: () => {
              void leave(queries)
            },
          }
        : null,
    [person, codes.data, queries],
  )

  const opening = session.isPending || units.isPending || codes.isPending || terms.isPending
  if (opening || (personId !== null && owner !== personId)) {
    const failed = session.failureReason ?? units.failureReason
    return (
      <p className="p-8 text-steel" role="status">
        {failed instanceof Refusal ? t`${failed.message} Trying again …` : t`Opening …`}
      </p>
    )
  }
  if (session.isError || units.isError || codes.isError || terms.isError || !units.data)
    return (
      <p className="p-8" role="alert">
        {(session.error ?? units.error ?? codes.error ?? terms.error)?.message}{' '}
        <button type="button" className="link" onClick={() => window.location.reload()}>
          <Trans>Try again</Trans>
        </button>
      </p>
    )
  if (window.location.pathname === WELCOME)
    return (
      <Suspense>
        <InvitationPage />
      </Suspense>
    )
  if (!state) return <SignInPage demo={session.data.demo} onDone={enter} />
  return (
    <SessionContext value={state}>
      <UnitsProvider kinds={units.data}>
        <TermsProvider terms={terms.data}>
          <JobProvider>
            <RouterProvider router={router} />
          </JobProvider>
        </TermsProvider>
        <Modal title={t`Sign in again`} open={signedOut} onClose={() => undefined}>
          <p className="mb-3 text-steel">
            <Trans>The session has ended. What you typed is still on the page and is saved once you are back.</Trans>
          </p>
          <SignInForm
            demo={session.data.demo}
            onDone={(next) => {
              enter(next)
              setSignedOut(false)
              window.dispatchEvent(new Event('signed-in'))
            }}
          />
        </Modal>
      </UnitsProvider>
    </SessionContext>
  )
}
