import type { Machine, OwnMetal, Procedure, Product } from '../api/types'
import { passesOf, withPasses } from './procedure'

type Library = NonNullable<Procedure['shelf']>

function libraryOf(document: Procedure): Library {
  return document.shelf ?? { metals: [], products: [], machines: [] }
}

export function machinesOf(document: Procedure): Machine[] {
  return libraryOf(document).machines
}

function placed<T extends { name: string }>(records: readonly T[], one: T): T[] {
  return [...records.filter((other) => other.name !== one.name), one]
}

/** A procedure whose library holds just the records that something in it names. */
function tidied(document: Procedure): Procedure {
  const library = libraryOf(document)
  const passes = passesOf(document)
  const next: Library = {
    metals: library.metals.filter((one) => document.base_metals.some((metal) => metal.designation === one.name)),
    products: library.products.filter((one) => passes.some((pass) => pass.filler?.make === one.name)),
    machines: library.machines.filter((one) => passes.some((pass) => pass.machine === one.name)),
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
  const library = libraryOf(document)
  const next = machine ? { ...library, machines: placed(library.machines, machine) } : library
  return tidied({ ...withPasses(document, numbers, { machine: name }), shelf: next })
}

/** Name a filler in some passes, and take its product's record along where there is one. */
export function withFiller(
  document: Procedure,
  numbers: readonly number[],
  filler: NonNullable<Procedure['passes'][number]['filler']>,
  product: Product | null,
): Procedure {
  const library = libraryOf(document)
  const next = product ? { ...library, products: placed(library.products, product) } : library
  return tidied({
    ...withPasses(document, numbers, { filler: { ...filler, make: product?.name ?? null } }),
    shelf: next,
  })
}

/** Take an own metal's record along. */
export function withOwnMetal(document: Procedure, metal: OwnMetal | null): Procedure {
  const library = libraryOf(document)
  return tidied({ ...document, shelf: metal ? { ...library, metals: placed(library.metals, metal) } : library })
}
