import type { FittedAssembly } from '../../../../api/assemblies'
import type { Machine } from '../../../../api/machines'
import { AnnotatedPictures } from '../../../../features/annotation/AnnotatedPictures'
import { Identifications } from '../../../../features/identifications/Identifications'
import { Unknowns } from '../../../../features/unknowns/Unknowns'
import { Dating } from './Dating'
import { Roms } from './Roms'

/** What it is, when it was built, what is original of it, and what is in its read-only memories. */
export function Identify({ machine, assemblies }: { machine: Machine; assemblies: FittedAssembly[] }) {
  return (
    <>
      <Dating machine={machine} assemblies={assemblies} />
      <AnnotatedPictures machineId={machine.id} />
      <Roms machine={machine} />
      <Unknowns machineId={machine.id} />
      <Identifications machineId={machine.id} assemblies={assemblies} />
    </>
  )
}
