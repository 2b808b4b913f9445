import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'

import { slotPlanQuery } from '../../../../api/setup'
import { BackplaneDrawing } from './BackplaneDrawing'
import { Numbered } from './Numbered'
import { OnPaper } from './OnPaper'
import { Rails } from './Rails'
import { stepsOf } from './steps'

/** The backplane as it stands, and what is done. */
export default function SlotPaper() {
  const id = Number(useParams().machineId)
  const plan = useQuery(slotPlanQuery(id, [])).data
  return (
    <OnPaper what="Slots">
      {plan && (
        <>
          <p>Power off and unplugged, leads out, and what the house asks for against static, before a card is touched.</p>
          <h2>As it stands</h2>
          <BackplaneDrawing plan={plan} inHand={null} onTake={nothing} onMove={nothing} />
          <ul>{plan.problems.map(({ detail }) => <li key={detail}>{detail}</li>)}</ul>
          <h2>What is done</h2>
          <Numbered>{stepsOf(plan).map((step) => <li key={step}>☐ {step}</li>)}</Numbered>
          {plan.proposal.notes.map((note) => <p key={note}>{note}.</p>)}
          <h2>Rails, once it is done</h2>
          <Rails plan={plan} />
        </>
      )}
    </OnPaper>
  )
}

const nothing = () => { /* on paper nothing is taken in hand */ }
