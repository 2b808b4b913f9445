import type { FittedAssembly } from '../../../../api/assemblies'
import type { Machine } from '../../../../api/machines'
import { PlannedPictures } from '../../../../boardplan/PlannedPictures'
import { Mysteries } from '../../../../mysteries/Mysteries'
import { Unknowns } from '../../../../unknowns/Unknowns'
import { Dating } from './Dating'
import { Roms } from './Roms'

/** What it is, when it was built, what is original of it, and what is in its read-only memories. */
export function Identify({ machine, assemblies }: { machine: Machine; assemblies: FittedAssembly[] }) {
  return (
    <>
      <Dating machine={machine} assemblies={assemblies} />
      <PlannedPictures machineId={machine.id} />
      <Roms machine={machine} />
      <Unknowns machineId={machine.id} />
      <Mysteries machineId={machine.id} assemblies={assemblies} />
    </>
  )
}
