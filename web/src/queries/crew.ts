import { keepPreviousData, queryOptions } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'

export const crewQuery = queryOptions({
  queryKey: ['crew'],
  queryFn: () => unwrap(api.GET('/api/crew')),
  staleTime: 0,
})

export const memberQuery = (id: number) =>
  queryOptions({
    queryKey: ['crew', 'member', id],
    queryFn: () => unwrap(api.GET('/api/crew/{member_id}', { params: { path: { member_id: id } } })),
    staleTime: 0,
  })

export const positionsQuery = queryOptions({
  queryKey: ['crew', 'positions'],
  queryFn: () => unwrap(api.GET('/api/crew/positions')),
  staleTime: 0,
})

export const jobCrewQuery = (jobId: number, units: 'si' | 'us') =>
  queryOptions({
    queryKey: ['crew', 'job', jobId, units],
    queryFn: () =>
      unwrap(api.GET('/api/jobs/{job_id}/crew', { params: { path: { job_id: jobId }, query: { units } } })),
    staleTime: 0,
    retry: false,
  })

export const welderPlanQuery = (jobId: number, needed: number, units: 'si' | 'us') =>
  queryOptions({
    queryKey: ['crew', 'plan', jobId, needed, units],
    queryFn: () =>
      unwrap(
        api.GET('/api/jobs/{job_id}/welder-tests', {
          params: { path: { job_id: jobId }, query: { needed, units } },
        }),
      ),
    staleTime: 0,
    retry: false,
  })

export const dueQuery = (days: number) =>
  queryOptions({
    queryKey: ['crew', 'due', days],
    queryFn: () => unwrap(api.GET('/api/crew/due', { params: { query: { days } } })),
    placeholderData: keepPreviousData,
    staleTime: 0,
  })

export const calendarQuery = queryOptions({
  queryKey: ['crew', 'calendar'],
  queryFn: () => unwrap(api.GET('/api/crew/calendar')),
})

export const workQuery = (certificateId: number) =>
  queryOptions({
    queryKey: ['crew', 'work', certificateId],
    queryFn: () =>
      unwrap(
        api.GET('/api/certificates/{certificate_id}/work', { params: { path: { certificate_id: certificateId } } }),
      ),
    staleTime: 0,
  })

export const designationQuery = (text: string) =>
  queryOptions({
    queryKey: ['crew', 'designation', text],
    queryFn: ({ signal }) => unwrap(api.POST('/api/crew/designation', { body: { text }, signal })),
    retry: false,
  })

export const welderTestQuery = (couponId: number) =>
  queryOptions({
    queryKey: ['crew', 'welder-test', couponId],
    queryFn: () =>
      unwrap(api.GET('/api/coupons/{coupon_id}/welder-test', { params: { path: { coupon_id: couponId } } })),
    staleTime: 0,
  })

/** What is asked about: a procedure, a coupon, or a joint of the list with its WPS. */
export type WhoMayAsked =
  | { kind: 'revision'; id: number }
  | { kind: 'coupon'; id: number }
  | { kind: 'joint'; jobId: number; mark: string; revisionId: number }

export const whoMayQuery = (asked: WhoMayAsked) =>
  queryOptions({
    queryKey: ['crew', 'who-may', asked],
    queryFn: () => {
      if (asked.kind === 'revision')
        return unwrap(api.GET('/api/revisions/{revision_id}/who-may', { params: { path: { revision_id: asked.id } } }))
      if (asked.kind === 'coupon')
        return unwrap(api.GET('/api/coupons/{coupon_id}/who-may', { params: { path: { coupon_id: asked.id } } }))
      const query = { mark: asked.mark, revision_id: asked.revisionId }
      return unwrap(api.GET('/api/jobs/{job_id}/welds/who-may', { params: { path: { job_id: asked.jobId }, query } }))
    },
    staleTime: 0,
  })

export const couponWelderQuery = (couponId: number, name: string) =>
  queryOptions({
    queryKey: ['crew', 'coupon-welder', couponId, name],
    queryFn: () =>
      unwrap(
        api.GET('/api/coupons/{coupon_id}/welder', { params: { path: { coupon_id: couponId }, query: { name } } }),
      ),
  })

export const weldersQuery = (jobId: number, mark: string, revisionId: number, on: string, names: string[]) =>
  queryOptions({
    queryKey: ['crew', 'welders', jobId, mark, revisionId, on, names],
    queryFn: () =>
      unwrap(
        api.GET('/api/jobs/{job_id}/welds/welders', {
          params: { path: { job_id: jobId }, query: { mark, revision_id: revisionId, on, names } },
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: 0,
    retry: false,
  })
