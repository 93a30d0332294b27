/** The browser's store of sheets that were taken along. */
export const SHEETS = 'sheets'

/** Whether this is the address of a WPS as a sheet. */
export const isSheet = (path: string): boolean => /^\/api\/revisions\/\d+\/print$/.test(path)

/** The address of a WPS as a sheet. */
export const sheetOf = (revisionId: number): string => `/api/revisions/${String(revisionId)}/print`
