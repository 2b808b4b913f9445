import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Lot, type LotThing, useAddThing, useChangeThing, useVoidThing, useThingIsMachine } from '../../api/lots'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { amountOf } from '../../kit/amount'
import { Button } from '../../kit/Button'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { Part } from '../../kit/Part'
import { usePanel } from '../../kit/usePanel'
import { space } from '../../theme'
import { PlaceThing } from './PlaceThing'
import { ThingForm } from './ThingForm'

type Doing = { thing: number; what: 'place' | 'change' }

/** The things of a lot: what each was thought to be worth, its share of the cost, and what became of it. */
export function Things({ lot }: { lot: Lot }) {
  const mayEdit = useAccount()?.mayKeepTheRecord ?? false
  const [adding, setAdding] = usePanel('thing', 'keepers')
  const [doing, setDoing] = useState<Doing>()
  const add = useAddThing(lot.id)
  const done = () => { setDoing(undefined) }
  const byHand = lot.spread === 'hand'
  return (
    <Part title="Things of the lot"
      action={mayEdit && <Button $small onPress={() => { setAdding(true) }}>Add a thing</Button>}>
      {lot.spreadProblem && <Notice tone="attention" word="Not spread.">{capital(lot.spreadProblem)}.</Notice>}
      {lot.things.length === 0 && !adding && <p>Nothing is listed yet. Add what came, a thing at a time.</p>}
      {lot.things.length > 0 && (
        <Scroll>
          <ListTable>
            <thead>
              <tr>
                <th>Thing</th><th>Kind</th><Figure as="th">Estimate, {lot.currency}</Figure>
                  <Figure as="th">Share, {lot.currency}</Figure><Figure as="th">Worth today, {lot.currency}</Figure>
                    <th>What became of it</th>
                {mayEdit && <th><span className="only-read">Do</span></th>}
              </tr>
            </thead>
            <tbody>
              {lot.things.map((thing) => (
                <tr key={thing.id}>
                  <td>{thing.title}{thing.note && `; ${thing.note}`}</td>
                  <td>{thing.kind}</td>
                  <Figure>{amountOf(thing.estimateCents)}</Figure>
                  <Figure>{thing.share}</Figure>
                  <Figure>{amountOf(thing.valueCents)}</Figure>
                  <td><Fate thing={thing} /></td>
                  {mayEdit && <td>
                    <Do lot={lot} thing={thing} onDo={(what) => { setDoing({ thing: thing.id, what }) }} />
                  </td>}
                </tr>
              ))}
            </tbody>
            <tfoot>
              <tr>
                <th scope="row">Together</th><td />
                <Figure>{amountOf(lot.estimatesCents)}</Figure>
                <Figure>{lot.things.some(({ share }) => share) ? lot.cost : ''}</Figure>
                <Figure>{amountOf(lot.worth.value)}</Figure>
                <td colSpan={mayEdit ? 2 : 1} />
              </tr>
            </tfoot>
          </ListTable>
        </Scroll>
      )}
      {lot.things.filter(({ id }) => id === doing?.thing).map((thing) => (
        <Below key={thing.id}>
          {doing?.what === 'place' ? <PlaceThing lot={lot} thing={thing} onDone={done} />
            : <Change lot={lot} thing={thing} onDone={done} />}
        </Below>
      ))}
      {adding && (
        <ThingForm
          keptAs={`new thing of lot ${String(lot.id)}`}
          key={lot.version}
          byHand={byHand}
          error={add.error}
          isPending={add.isPending}
          action="Add"
          onSubmit={(fields) => { add.mutate({ ...fields, version: lot.version }) }}
          onCancel={() => { setAdding(false) }}
        />
      )}
    </Part>
  )
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

function Fate({ thing }: { thing: LotThing }) {
  if (thing.machineId) return <>is <Link to={`/bench/${String(thing.machineId)}/arrive`}>{thing.accession}</Link></>
  if (thing.assemblyId) return <Link to={`/stores/${String(thing.assemblyId)}`}>in store</Link>
  return <>{thing.disposition}</>
}

function Do({ lot, thing, onDo }: { lot: Lot; thing: LotThing; onDo: (what: Doing['what']) => void }) {
  const unlink = useThingIsMachine()
  const placed = thing.machineId !== null || thing.assemblyId !== null || thing.passedOn !== ''
  return (
    <>
      {!placed && <Button $tone="quiet" aria-label={`Place ${thing.title}`} onPress={() => { onDo('place') }}>
        Place
      </Button>}
      <Button $tone="quiet" aria-label={`Change ${thing.title}`} onPress={() => { onDo('change') }}>Change</Button>
      {thing.machineId !== null && (
        <Button $tone="quiet" aria-label={`Unlink ${thing.title} from ${thing.accession}`}
          onPress={() => {
            unlink.mutate({ id: lot.id, thing: thing.id, version: lot.version, machineId: 0 })
          }}>Unlink</Button>
      )}
      {unlink.error && <Notice tone="stop" word="Not unlinked.">{messageOf(unlink.error)}</Notice>}
    </>
  )
}

function Change({ lot, thing, onDone }: { lot: Lot; thing: LotThing; onDone: () => void }) {
  const change = useChangeThing(lot.id, thing.id)
  const voiding = useVoidThing(lot.id, thing)
  return (
    <>
      <ThingForm
        keptAs={`thing ${String(thing.id)}`}
        start={thing}
        byHand={lot.spread === 'hand'}
        error={change.error}
        isPending={change.isPending}
        action="Save"
        onSubmit={(fields) => { change.mutate({ ...fields, version: lot.version }, { onSuccess: onDone }) }}
        onCancel={onDone}
      />
      <div><Button $tone="quiet" isPending={voiding.isPending}
        onPress={() => { voiding.mutate(lot.version, { onSuccess: onDone }) }}>Entered by mistake: take it out of the
          lot</Button></div>
      {voiding.error && <Notice tone="stop" word="Not taken out.">{messageOf(voiding.error)}</Notice>}
    </>
  )
}

const Below = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
`
