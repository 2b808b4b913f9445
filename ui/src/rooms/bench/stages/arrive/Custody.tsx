import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Dossier, type CustodyView, useRetractCustody } from '../../../../api/dossier'
import { useAccount } from '../../../../api/session'
import { Button } from '../../../../kit/Button'
import { Field } from '../../../../kit/Field'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { usePanel } from '../../../../kit/usePanel'
import { color, font, space } from '../../../../theme'
import { atPicture } from '../../../../features/pictures/region'
import { ChainDrawing } from './ChainDrawing'
import { ChangeCustody, TellCustody } from './CustodyForm'

type Chain = Dossier['chain']

/** Through whose hands the machine went: the drawing, what does not hold, and each statement with its source. */
export function Custody({ machineId, chain, arrived }: { machineId: number; chain: Chain; arrived: string }) {
  const mayEdit = useAccount()?.mayKeepTheRecord ?? false
  const [adding, setAdding] = usePanel('custody', 'keepers')
  return (
    <Part title="Through whose hands"
      action={mayEdit && <Button $small onPress={() => { setAdding(true) }}>Add to the chain</Button>}>
      {adding && <TellCustody machineId={machineId} onDone={() => { setAdding(false) }} />}
      <ChainDrawing chain={chain} arrived={/^\d{4}-\d\d-\d\d$/.test(arrived) ? arrived : ''} />
      {chain.problems.length > 0 && (
        <Findings aria-label="What does not hold">
          {chain.problems.map((finding) => (
            <li key={finding.text}>
              <Mark kind={finding.kind === 'gap' || finding.kind === 'undated' ? 'attention' : 'problem'} /> <strong>
                {words[finding.kind]}
              </strong> {finding.text}
            </li>
          ))}
        </Findings>
      )}
      {chain.links.length === 0 && <p>Nothing is written down of its past. Start with who made it and when, or with who
        used it last.</p>}
      <Links>
        {chain.links.map((link) => <One key={link.id} machineId={machineId} link={link} mayEdit={mayEdit} />)}
        {chain.retracted.map((link) => (
          <li key={link.id}><When>{link.dates}</When>
            <span><s>{link.roleWords} {link.whom}</s> <Faint>withdrawn: {link.retracted}</Faint></span></li>
        ))}
      </Links>
    </Part>
  )
}

const words: Record<Chain['problems'][number]['kind'], string> = { gap: 'Gap', overlap: 'Overlap',
  impossible: 'Impossible', undated: 'No date' }

function One({ machineId, link, mayEdit }: { machineId: number; link: CustodyView; mayEdit: boolean }) {
  const [doing, setDoing] = useState<'changing' | 'withdrawing'>()
  const retract = useRetractCustody()
  const done = () => { setDoing(undefined) }
  const source = [link.kind, link.cited, link.page && `page ${link.page}`, link.statedOn, link.link].filter(Boolean)
    .join(', ')
  return (
    <li>
      <When>{link.dates || 'no date'}</When>
      <span>
        {link.roleWords} <strong>{link.whom || 'somebody unknown'}</strong>{link.place && `, ${link.place}`}
          {link.usedFor && `: ${link.usedFor}`} <Faint>({source})</Faint>
        {link.pictureId
          && <> <Link to={`/bench/${String(machineId)}/look-over?${atPicture({ id: link.pictureId, region: link.region })}`}>{link.region ? 'place on the picture'
              : 'what it cites'}</Link></>}
        {mayEdit && (
          <Both>
            <Button $tone="quiet" aria-label={`Change ${link.roleWords} ${link.whom}`}
              onPress={() => { setDoing('changing') }}>Change</Button>
            <Button $tone="quiet" aria-label={`Withdraw ${link.roleWords} ${link.whom}`}
              onPress={() => { setDoing('withdrawing') }}>Withdraw</Button>
          </Both>
        )}
      </span>
      {doing && (
        <Whole>
          {doing === 'changing' && <ChangeCustody machineId={machineId} link={link} onDone={done} />}
          {doing === 'withdrawing' && (
            <RecordForm
              keptAs={`withdrawal of custody ${String(link.id)}`}
              error={retract.error}
              isPending={retract.isPending}
              action="Withdraw"
              onSubmit={(form) => { retract.mutate({ id: link.id, why: textOf(form, 'why') }, { onSuccess: done }) }}
              onCancel={done}
            >
              <Field label="Why it does not count any more" name="why" isRequired autoFocus />
            </RecordForm>
          )}
        </Whole>
      )}
    </li>
  )
}

const Findings = styled.ul`
  padding: ${space(1)} ${space(2)};
  border-left: 3px solid ${color.amber};
  background: ${color.amberGround};
  li { padding: 2px 0; }
  svg { vertical-align: -3px; }
`
const Links = styled.ol`
  li {
    display: grid;
    grid-template-columns: 128px minmax(0, 1fr);
    gap: 0 ${space(2)};
    align-items: baseline;
    padding: 4px 0;
    border-bottom: 1px solid ${color.line};
    overflow-wrap: anywhere;
  }
  @media (max-width: 600px) { li { grid-template-columns: minmax(0, 1fr); } }
`
const Both = styled.span`
  white-space: nowrap;
`
const When = styled.span`
  font: 14px/24px ${font.mono};
  color: ${color.faint};
`
const Whole = styled.div`
  grid-column: 1 / -1;
`
