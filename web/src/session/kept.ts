import { experimental_createQueryPersister as createPersister } from '@tanstack/query-persist-client-core'
import type { QueryClient } from '@tanstack/react-query'
import { clear, createStore, del, entries, get, set } from 'idb-keyval'

import { SHEETS } from '../domain/sheets'
import { language } from './language'

/**
 * What was read from the server, kept on this device for work without a network. Off until somebody turns
 * it on for the device; it belongs to the person who is signed in, and goes with signing out.
 */
const DAYS = 7
const ON = 'without-network'
const OWNER = 'kept-for'
/** What was taken along last: read by takeAlong.ts. */
export const TAKEN = 'taken-along'
const PREFIX = 'kept'

/**
 * What is of use in the booth. Left out is what is right on its day only: who is qualified, what covers what;
 * an old answer to that would be a wrong one.
 */
const KEPT = new Set([
  ...['session', 'units', 'codes', 'terms', 'jobs', 'coupons', 'coupon', 'procedures', 'welds', 'library/records'],
  ...['symptoms', 'symptom-words', 'cures', 'causes', 'pass-known', 'recordings'],
])
const isKept = ([first, second]: readonly unknown[]) =>
  (KEPT.has(String(first)) && !(first === 'session' && second !== undefined)) ||
  KEPT.has(`${String(first)}/${String(second)}`)

let opened: ReturnType<typeof createStore> | null = null
const store = () => (opened ??= createStore('grounded-bead', 'read'))

export const isKeeping = (): boolean => typeof indexedDB !== 'undefined' && localStorage.getItem(ON) === '1'

const { persisterFn, persisterGc, persistQuery } = createPersister<unknown>({
  prefix: PREFIX,
  // Another version of the program, or another language, says other things.
  buster: `${__SHAPE__} ${language()}`,
  maxAge: DAYS * 86_400_000,
  refetchOnRestore: false,
  filters: { predicate: (one) => isKept(one.queryKey) },
  serialize: (one) => one,
  deserialize: (one) => one as never,
  storage: {
    getItem: async (key) => (isKeeping() ? await get<unknown>(key, store()) : undefined),
    setItem: async (key, value) => {
      if (isKeeping()) await set(key, value, store()).catch(() => undefined)
    },
    removeItem: (key) => (isKeeping() ? del(key, store()) : undefined),
    entries: async () => (isKeeping() ? await entries<string, unknown>(store()) : []),
  },
})

export { persisterGc }

/** Read an answer as it is kept on this device and ask for it anew; where it is not kept, ask. */
export const asKept: typeof persisterFn = async (ask, context, query) => {
  let asked = false
  const answer = await persisterFn(
    (given: typeof context) => {
      asked = true
      return ask(given)
    },
    context,
    query,
  )
  // Once the kept answer stands in the cache. That it cannot be asked now is said by the query itself.
  if (!asked) setTimeout(() => void query.fetch().catch(() => undefined), 0)
  return answer
}

/** Keep from now on, with what was read already; or keep nothing and forget what is kept. */
export async function keep(on: boolean, queries: QueryClient): Promise<void> {
  if (on) {
    localStorage.setItem(ON, '1')
    await keepRead(queries)
  } else {
    await forget()
    localStorage.removeItem(ON)
  }
}

/** Keep what the page has read already. */
export async function keepRead(queries: QueryClient): Promise<void> {
  const read = queries.getQueryCache().findAll({ predicate: (one) => isKept(one.queryKey) })
  await Promise.all(read.filter((one) => one.state.data !== undefined).map((one) => persistQuery(one)))
}

/** Forget what is kept: it was somebody's. What waits to be sent stays. */
export async function forget(): Promise<void> {
  localStorage.removeItem(OWNER)
  localStorage.removeItem(TAKEN)
  if (!isKeeping()) return
  await clear(store())
  // Browsers have this store under an encrypted address only.
  if ('caches' in window) await caches.delete(SHEETS)
}

/** What is kept belongs to this person; what was kept for another is forgotten. */
export async function keptFor(personId: number): Promise<void> {
  const owner = localStorage.getItem(OWNER)
  if (owner !== null && owner !== String(personId)) await forget()
  localStorage.setItem(OWNER, String(personId))
}

/** Ask the browser not to drop what is kept when its disk runs full; whether it agreed. */
export async function persistent(): Promise<boolean> {
  try {
    return (await navigator.storage.persist()) === true
  } catch {
    return false
  }
}
