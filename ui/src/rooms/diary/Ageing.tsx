import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { classesQuery, type OwnClass, useChangeClass } from '../../api/judge'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { Faint, Page, Title } from '../../kit/Page'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { readIntervals, writeIntervals } from './intervals'

const consequences = { looks: 'changes only how it looks', data: 'loses data', stops: 'stops the machine',
  spreads: 'spreads to its neighbours', hurts: 'may hurt somebody' } as const

/** A class that is to be added. */
const fresh: OwnClass = { key: '', name: '', words: '', consequence: 'stops', intervals: [{ fromYears: 0, months: 12 }],
  minutes: 10, happens: '', source: '', version: 0, shipped: false }

/** How often parts that age are looked at in this collection, each with how one knows. */
export default function Ageing() {
  const classes = useQuery(classesQuery)
  const mayChange = useAccount()?.mayKeepTheRecord ?? false
  const [editing, setEditing] = useState<string>()
  const edited = editing === '' ? fresh : classes.data?.find(({ key }) => key === editing)
  return (
    <Page>
      <Title><Link to="/diary/open-first">What to open first</Link> / How often</Title>
      <p><Faint>The numbers ship with the product, most as rules of thumb. A collection that knows better changes them;
        a harsh climate, said of a place in <Link to="/stores/places">Places</Link>, shortens them.</Faint></p>
      {classes.error && <Notice tone="stop" word="Not listed.">{messageOf(classes.error)}</Notice>}
      {mayChange && !edited && <Buttons>
        <Button $small onPress={() => { setEditing('') }}>Add a class</Button>
      </Buttons>}
      {edited && <Edit key={edited.key} one={edited} onDone={() => { setEditing(undefined) }} />}
      <Scroll>
        <ListTable>
          <thead><tr><th>What ages</th><th>Look every</th><th>What happens</th><Figure as="th">Minutes</Figure>
            <th>How one knows</th><th><span className="only-read">Edit</span></th></tr></thead>
          <tbody>
            {classes.data?.map((one) => (
              <tr key={one.key}>
                <td><strong>{one.name}</strong>{!one.shipped && <><br /><Faint>{one.words ? `added here; told by ${one.words}`
                  : 'changed here'}</Faint></>}</td>
                <td>{one.intervals.map(({ fromYears, months }) => (fromYears === 0 ? `${String(months)} months`
                  : `${String(months)} from ${String(fromYears)} years on`)).join(', ')}</td>
                <td>{one.happens}; <Faint>{consequences[one.consequence]}</Faint></td>
                <Figure>{one.minutes}</Figure>
                <td>{one.source}</td>
                <td>{mayChange && <Button $tone="quiet" aria-label={`Edit ${one.name}`}
                  onPress={() => { setEditing(one.key) }}>Edit</Button>}</td>
              </tr>
            ))}
          </tbody>
        </ListTable>
      </Scroll>
    </Page>
  )
}

function Edit({ one, onDone }: { one: OwnClass; onDone: () => void }) {
  const change = useChangeClass()
  const [consequence, setConsequence] = useState(one.consequence)
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <EditRecord keptAs={`class ${one.key}`} record={one} change={change} newerIn={(newer) => newer.maintenanceClass}
      names={{ name: 'name', words: 'words', happens: 'what happens', source: 'how one knows', minutes: 'minutes' }} onDone={onDone}>
      {({ onSubmit, ...form }) => (
        <RecordForm
          {...form}
          wrong={wrong}
          action="Save"
          onSubmit={(data) => {
            const intervals = readIntervals(textOf(data, 'intervals'))
            if (!intervals) {
              setWrong({ intervals: 'Write an age in years and months between looks a line, as 10: 3.' })
              return
            }
            setWrong({})
            onSubmit({
              key: one.key, name: textOf(data, 'name'), ...((one.words || !one.key) && { words: textOf(data, 'words') }), happens: textOf(data, 'happens'),
                source: textOf(data, 'source'), minutes: Number(textOf(data, 'minutes')) || one.minutes, consequence,
              intervals,
            })
          }}
        >
          <FieldGrid>
            <Field label="Name" name="name" defaultValue={one.name} isRequired autoFocus />
            <Choice label="When it fails, it" value={consequence}
              options={Object.entries(consequences).map(([value, text]) => ({ value: value as OwnClass['consequence'],
                text }))} onChange={setConsequence} />
            <Field label="Minutes to look at one" name="minutes" defaultValue={String(one.minutes)}
              inputMode="numeric" />
          </FieldGrid>
          {(one.words || !one.key) && <Field label="Told by these words on a sheet" name="words" defaultValue={one.words}
            isRequired placeholder="air filter, dust filter" hint="One of them is enough; commas between" />}
          <Field label="From age in years: months between looks" name="intervals"
            defaultValue={writeIntervals(one.intervals)} rows={3} mono hint="A line each, the first from 0 on" />
          <FieldGrid>
            <Field label="What happens to it" name="happens" defaultValue={one.happens} />
            <Field label="How one knows" name="source" defaultValue={one.source} isRequired
              hint="A source, or that it is a rule of thumb" />
          </FieldGrid>
        </RecordForm>
      )}
    </EditRecord>
  )
}
