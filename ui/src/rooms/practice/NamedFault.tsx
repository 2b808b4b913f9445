import { useState } from 'react'

import { type Practice, useEndPractice } from '../../api/practice'
import { Button, Buttons } from '../../kit/Button'
import { Choice, FieldGrid } from '../../kit/Field'
import { Mark } from '../../kit/Mark'
import { NotSaved } from '../../kit/NotSaved'
import { Part } from '../../kit/Part'

/** Says what is wrong, which ends the practice. */
export function SayWhat({ faults }: { faults: Practice['faults'] }) {
  const end = useEndPractice()
  const [key, setKey] = useState(faults[0]?.key ?? 'sags')
  const fault = faults.find((one) => one.key === key)
  const [said, setPlace] = useState('')
  const place = fault?.places.includes(said) ? said : fault?.places[0] ?? ''
  return (
    <Part title="What is it?" faint="Saying it ends the practice, and tells what it is">
      <FieldGrid>
        <Choice label="What is wrong" value={key} options={faults.map((one) => ({ value: one.key, text: one.name }))}
          onChange={setKey} />
        {fault && fault.places.length > 1 && <Choice label="Where" value={place}
          options={fault.places.map((value) => ({ value, text: value }))} onChange={setPlace} />}
      </FieldGrid>
      <Buttons><Button $tone="main" isPending={end.isPending} onPress={() => { end.mutate({ fault: key, place }) }}>
        Say that it is this</Button></Buttons>
      <NotSaved error={end.error} />
    </Part>
  )
}

/** What it was, and what would have gone wrong on a machine that is one. */
export function Debrief({ debrief }: { debrief: NonNullable<Practice['debrief']> }) {
  return (
    <Part title={debrief.right ? 'Found' : 'Not that'} faint={`${String(debrief.deeds)} deeds`}>
      <div role="status">
        <p><Mark kind={debrief.right ? 'done' : 'problem'} /> It is: <strong>{debrief.words.name}</strong>, {debrief.is.place}.
          {' '}{debrief.why}.</p>
      </div>
      {debrief.slips.length === 0 ? <p>Nothing of what was done would have been wrong on a real machine.</p> : (
        <>
          <p>On a real machine this would have been wrong:</p>
          <ul>{debrief.slips.map((entry, i) => <li key={i}><strong>{entry.kind} {entry.what}</strong>: {entry.slip}.</li>)}</ul>
        </>
      )}
    </Part>
  )
}
