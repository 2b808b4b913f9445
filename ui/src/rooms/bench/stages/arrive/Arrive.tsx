import type { Dossier } from '../../../../api/dossier'
import type { Machine } from '../../../../api/machines'
import { Custody } from './Custody'
import { HowItCame } from './HowItCame'
import { Left } from '../Left'
import { PersonalDataPart } from './PersonalDataPart'
import { Locations } from './Locations'

/** How the machine came, through whose hands it went before, and where it is since. */
export function Arrive({ machine, dossier }: { machine: Machine; dossier: Dossier }) {
  const { arrival, chain, personalData, locations, stages } = dossier
  return (
    <>
      <Left words="Not written down yet" left={stages.arriveMissing} />
      <HowItCame machine={machine} arrival={arrival} />
      <Custody machineId={machine.id} chain={chain} arrived={arrival.lot?.arrived ?? ''} />
      <Locations machine={machine} locations={locations} />
      <PersonalDataPart machineId={machine.id} found={personalData} />
    </>
  )
}
