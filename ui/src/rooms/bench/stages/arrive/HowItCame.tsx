import { Link } from 'react-router'

import type { Dossier } from '../../../../api/dossier'
import { useReceiveLot, useThingIsMachine } from '../../../../api/lots'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { amountOf } from '../../../../kit/amount'
import { Button, Buttons } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { Facts, Part } from '../../../../kit/Part'
import { usePanel } from '../../../../kit/usePanel'
import { LotForm } from '../../../arrivals/LotForm'

/** The lot that the machine came with: from whom, when, for how much, and its share of that. */
export function HowItCame({ machine, arrival }: { machine: Machine; arrival: Dossier['arrival'] }) {
  const mayEdit = useAccount()?.mayKeepTheRecord ?? false
  const [writing, setWriting] = usePanel('how it came', 'keepers')
  const { lot, thing } = arrival
  if (!lot || !thing) {
    return (
      <Part title="How it came">
        <p>How it came is not written down.</p>
        {mayEdit && !writing && (
          <Buttons>
            <Button $tone="main" onPress={() => { setWriting(true) }}>Write down how it came</Button>
            <span>If it came with others, choose its lot in <Link to="/collection/arrivals">Arrivals</Link> and say there
              which thing it is.</span>
          </Buttons>
        )}
        {writing && <WriteDown machine={machine} onDone={() => { setWriting(false) }} />}
      </Part>
    )
  }
  const extra = (lot.costs ?? []).map(({ what, cents }) => `${amountOf(cents)} ${what}`).join(', ')
  return (
    <Part title="How it came" faint={<Link to={`/collection/arrivals/${String(lot.id)}`}>{lot.title}</Link>}>
      <Facts>
        <dt>By</dt><dd>{lot.method}{lot.party && `, from ${lot.party}`}</dd>
        <dt>On</dt><dd>{lot.arrived || 'not known'}</dd>
        {lot.priceCents !== null && <><dt>Cost of the lot</dt><dd>{lot.cost} {lot.currency}
          {extra && ` (${amountOf(lot.priceCents)} and ${extra})`}</dd></>}
        {thing.share && <><dt>Its share</dt>
          <dd>{thing.share} {lot.currency}, spread over {lot.things.length === 1 ? '1 thing'
            : `${String(lot.things.length)} things`} by {ways[lot.spread ?? 'estimate']}</dd></>}
        {thing.valueCents !== null && <><dt>Worth today</dt><dd>{amountOf(thing.valueCents)} {lot.currency}
          {thing.valueNote && `, ${thing.valueNote}`}</dd></>}
        {lot.condition && <><dt>As received</dt><dd>{lot.condition}</dd></>}
        {lot.powered && <><dt>Last ran</dt><dd>{lot.powered}</dd></>}
        {lot.cameWith && <><dt>Came with it</dt><dd>{lot.cameWith}</dd></>}
        {lot.worth.verdict && <><dt>Was it worth it</dt><dd>{lot.worth.verdict}</dd></>}
      </Facts>
    </Part>
  )
}

const ways: Record<string, string> = { estimate: 'estimate', equal: 'equal shares', hand: 'hand' }

/** Receives a lot that holds this machine alone. */
function WriteDown({ machine, onDone }: { machine: Machine; onDone: () => void }) {
  const receive = useReceiveLot()
  const link = useThingIsMachine()
  return (
    <>
      {link.error && <Notice tone="stop" word="Not linked.">{messageOf(link.error)} It stands in Arrivals; say there
        that it is this machine.</Notice>}
      <LotForm
        keptAs={`how machine ${String(machine.id)} came`}
        start={{ title: machine.name }}
        error={receive.error}
        isPending={receive.isPending || link.isPending}
        action="Save"
        onSubmit={(fields) => {
          receive.mutate({ ...fields,
            things: [{ kind: 'machine', title: machine.name, estimateCents: fields.priceCents ?? null }] }, {
            onSuccess: ({ id, version, things: [thing] }) => {
              if (thing) link.mutate({ id, thing: thing.id, version, machineId: machine.id }, { onSuccess: onDone })
            },
          })
        }}
        onCancel={onDone}
      />
    </>
  )
}
