import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { RouterProvider, createBrowserRouter } from 'react-router'

import { Refusal, api, onSignedOut, unwrap } from '../api/client'
import { benchRoutes } from '../features/bench'
import { couponRoutes } from '../features/coupons'
import { deskRoutes } from '../features/desk'
import { procedureRoutes } from '../features/procedures'
import { qualificationRoutes } from '../features/qualification/routes'
import { recordingRoutes } from '../features/recordings'
import { shelfRoutes } from '../features/shelf'
import { Modal } from '../ui/Modal'
import { Frame } from './Frame'
import { JobProvider } from './job'
import { NothingHere } from './NothingHere'
import { SignInForm, SignInPage } from './SignIn'
import { codesQuery, sessionQuery, termsQuery, unitsQuery } from './queries'
import { SessionContext } from './session'
import { TermsProvider } from './terms'
import { UnitsProvider } from './units'

const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <NothingHere broken />,
    children: [...deskRoutes, ...procedureRoutes, ...couponRoutes, ...qualificationRoutes, ...recordingRoutes, ...benchRoutes, ...shelfRoutes, { path: '*', element: <NothingHere /> }],
  },
])

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
  const state = useMemo(
    () =>
      person && codes.data
        ? {
            person,
            codes: codes.data,
            signOut: () => {
              void unwrap(api.DELETE('/api/session')).then((next) => {
                queries.clear()
                queries.setQueryData(sessionQuery.queryKey, next)
              })
            },
          }
        : null,
    [person, codes.data, queries],
  )

  if (session.isPending || units.isPending || codes.isPending || terms.isPending) {
    const failed = session.failureReason ?? units.failureReason
    return (
      <p className="p-8 text-steel" role="status">
        {failed instanceof Refusal ? `${failed.message} Trying again …` : 'Opening …'}
      </p>
    )
  }
  if (session.isError || units.isError || codes.isError || terms.isError || !units.data)
    return (
      <p className="p-8" role="alert">
        {(session.error ?? units.error ?? codes.error ?? terms.error)?.message}{' '}
        <button type="button" className="link" onClick={() => window.location.reload()}>
          Try again
        </button>
      </p>
    )
  if (!state)
    return <SignInPage demo={session.data.demo} onDone={(next) => queries.setQueryData(sessionQuery.queryKey, next)} />
  return (
    <SessionContext value={state}>
      <UnitsProvider kinds={units.data}>
        <TermsProvider terms={terms.data}>
          <JobProvider>
            <RouterProvider router={router} />
          </JobProvider>
        </TermsProvider>
        <Modal title="Sign in again" open={signedOut} onClose={() => undefined}>
          <p className="mb-3 text-steel">The session has ended. What you typed is still on the page and is saved once you are back.</p>
          <SignInForm
            demo={session.data.demo}
            onDone={(next) => {
              queries.setQueryData(sessionQuery.queryKey, next)
              setSignedOut(false)
              window.dispatchEvent(new Event('signed-in'))
            }}
          />
        </Modal>
      </UnitsProvider>
    </SessionContext>
  )
}
