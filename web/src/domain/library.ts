import type { Machine, OwnMetal, Procedure, Product } from '../api/types'
import { passesOf, withPasses } from './procedure'

type Shelf = NonNullable<Procedure['shelf']>

function shelfOf(document: Procedure): Shelf {
  return document.shelf ?? { metals: [], products: [], machines: [] }
}

export function machinesOf(document: Procedure): Machine[] {
  return shelfOf(document).machines
}

function placed<T extends { name: string }>(records: readonly T[], one: T): T[] {
  return [...records.filter((other) => other.name !== one.name), one]
}

/** A procedure whose shelf holds just the records that something in it names. */
function tidied(document: Procedure): Procedure {
  const shelf = shelfOf(document)
  const passes = passesOf(document)
  const next: Shelf = {
    metals: shelf.metals.filter((one) => document.base_metals.some((metal) => metal.designation === one.name)),
    products: shelf.products.filter((one) => passes.some((pass) => pass.filler?.make === one.name)),
    machines: shelf.machines.filter((one) => passes.some((pass) => pass.machine === one.name)),
  }
  const empty = next.metals.length + next.products.length + next.machines.length === 0
  return { ...document, shelf: empty ? null : next }
}

/** Name a machine in some passes, and take its record along; without a record only the name. */
export function withMachine(
  document: Procedure,
  numbers: readonly number[],
  name: string | null,
  machine: Machine | undefined,
): Procedure {
  const shelf = shelfOf(document)
  const next = machine ? { ...shelf, machines: placed(shelf.machines, machine) } : shelf
  return tidied({ ...withPasses(document, numbers, { machine: name }), shelf: next })
}

/** Name a filler in some passes, and take its product's record along where there is one. */
export function withFiller(
  document: Procedure,
  numbers: readonly number[],
  filler: NonNullable<Procedure['passes'][number]['filler']>,
  product: Product | null,
): Procedure {
  const shelf = shelfOf(document)
  const next = product ? { ...shelf, products: placed(shelf.products, product) } : shelf
  return tidied({
    ...withPasses(document, numbers, { filler: { ...filler, make: product?.name ?? null } }),
    shelf: next,
  })
}

/** Take an own metal's record along. */
export function withOwnMetal(document: Procedure, metal: OwnMetal | null): Procedure {
  const shelf = shelfOf(document)
  return tidied({ ...document, shelf: metal ? { ...shelf, metals: placed(shelf.metals, metal) } : shelf })
}
