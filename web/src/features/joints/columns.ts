import { t } from '@lingui/core/macro'

/** Columns of a weld list by what they are called; the order is the server's. */
export const COLUMN_WORDS: Record<string, string> = {
  mark: t`Mark`,
  drawing: t`Drawing`,
  revision: t`Rev.`,
  part: t`Part`,
  place: t`Location`,
  count: t`Qty`,
  length: t`Weld length`,
  joint: t`Joint type`,
  weld: t`Weld type`,
  size: t`Size (a, z)`,
  edge: t`Edge preparation`,
  sides: t`Sides`,
  backing: t`Backing`,
  metal: t`Base metal 1`,
  metal2: t`Base metal 2`,
  thickness: t`Thickness 1`,
  thickness2: t`Thickness 2`,
  diameter: t`Outside diameter`,
  positions: t`Positions`,
  process: t`Process`,
  impact: t`Impact test`,
  hardness: t`Hardness test`,
  pwht: t`PWHT`,
  site: t`Site or shop`,
  ndt: t`NDT class`,
  remarks: t`Remarks`,
}

/** Widths in px; a mark and a metal need more than a thickness. */
export const WIDTHS: Record<string, number> = {
  mark: 90,
  drawing: 84,
  revision: 48,
  part: 110,
  weld: 84,
  metal: 112,
  metal2: 112,
  size: 84,
  count: 48,
  remarks: 240,
  edge: 120,
  impact: 130,
  place: 130,
}
export const USUAL_WIDTH = 96
