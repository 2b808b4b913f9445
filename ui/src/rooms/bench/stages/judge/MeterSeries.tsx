import { useQuery } from '@tanstack/react-query'
import { useEffect, useEffectEvent, useState } from 'react'
import styled from 'styled-components'

import { type Measurement, meterQuery, type Quantity, useAddReading, useDropReading, useMeasure,
  useTakeReading } from '../../../../api/judge'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { MeterStandIn } from '../../../../features/instruments/StandIn'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { color, font, space } from '../../../../theme'

/** The key of a foot switch. */
const footSwitch = 'F9'

const quantities: { value: Quantity; text: string }[] = [
  { value: 'volts', text: 'volts' }, { value: 'volts-ac', text: 'volts, alternating' },
  { value: 'volts-pp', text: 'volts from peak to peak' }, { value: 'amperes', text: 'amperes' },
  { value: 'ohms', text: 'ohms' }, { value: 'microfarads', text: 'microfarads' },
  { value: 'esr', text: 'ESR, ohms' }, { value: 'hertz', text: 'hertz' }, { value: 'seconds', text: 'seconds' },
  { value: 'millimetres', text: 'millimetres' }, { value: 'celsius', text: 'degrees Celsius' },
  { value: 'grams', text: 'grams' },
]

type Props = { machine: Machine; measured: Measurement[]; running: number | undefined;
  onRunning: (id: number | undefined) => void }

/** Several readings of one point, by the meter or by hand; the key of a foot switch takes the next. */
export function MeterSeries({ machine, measured, running, onRunning }: Props) {
  const measure = useMeasure(machine.id)
  const meter = useQuery(meterQuery)
  const [point, setPoint] = useState('')
  const [quantity, setQuantity] = useState<Quantity>('volts')
  const series = measured.find(({ id }) => id === running)
  return (
    <Frame aria-label="Series of readings">
      <p><strong>A series</strong> <Faint>
        {meter.data?.name || (meter.data?.trouble ? meter.data.trouble : meter.data?.address ? 'the meter is asked for'
          : 'no meter is set up; readings are typed')}
      </Faint></p>
      {series ? (
        <Series series={series} hasMeter={Boolean(meter.data?.address)} onDone={() => { onRunning(undefined) }} />
      ) : (
        <>
          <FieldGrid>
            <Field label="Point" value={point} onChange={setPoint} mono placeholder="+5" />
            <Choice label="What" value={quantity} options={quantities} onChange={setQuantity} />
          </FieldGrid>
          {measure.error && <Notice tone="stop" word="Not begun.">{messageOf(measure.error)}</Notice>}
          <Buttons><Button $small isDisabled={point.trim() === ''} isPending={measure.isPending}
            onPress={() => { measure.mutate({ point, quantity }, { onSuccess: ({ id }) => { onRunning(id) } }) }}>Begin
              a series of {point.trim() || 'a point'}</Button></Buttons>
        </>
      )}
      <MeterStandIn likely={`${machine.accession} ${series?.point ?? point}`} />
    </Frame>
  )
}

function Series({ series, hasMeter, onDone }: { series: Measurement; hasMeter: boolean; onDone: () => void }) {
  const take = useTakeReading()
  const add = useAddReading()
  const drop = useDropReading()
  const [typed, setTyped] = useState('')
  const next = useEffectEvent(() => { if (hasMeter && !take.isPending) take.mutate(series.id) })
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.key !== footSwitch) return
      event.preventDefault()
      next()
    }
    document.addEventListener('keydown', listen)
    return () => { document.removeEventListener('keydown', listen) }
  }, [])
  const { stats, inWords, verdict, why } = series.judged
  const error = take.error ?? add.error ?? drop.error
  const value = Number(typed.replace(',', '.'))
  return (
    <>
      <Shown role="status">
        <b>{series.point}</b> <Value>{inWords}</Value> <span>{verdict}</span>
        <Faint>{stats.count === 1 ? '1 reading' : `${String(stats.count)} readings`}
          {stats.count > 1 && `, spread ${String(stats.spread)} ${series.unit}`}</Faint>
      </Shown>
      <Faint>{series.readings.join(' · ')}</Faint>
      <Faint>{why.join('; ')}</Faint>
      {series.trouble && <Notice tone="attention" word="Stopped; what was read is kept.">{series.trouble}. Look after
        the leads and the cable, then go on.</Notice>}
      {error && <Notice tone="stop" word="Not read.">{messageOf(error)}</Notice>}
      <Buttons>
        {hasMeter && <Button $tone="main" autoFocus isPending={take.isPending}
          onPress={() => { take.mutate(series.id) }}>{series.trouble ? 'Go on'
            : 'Take a reading'} ({footSwitch})</Button>}
        {stats.count > 0 && <Button $small isPending={drop.isPending} onPress={() => { drop.mutate(series) }}>
          Take the last one out
        </Button>}
        <Button $small onPress={onDone}>Done</Button>
      </Buttons>
      <form onSubmit={(event) => { event.preventDefault(); if (typed && Number.isFinite(value))
        add.mutate({ id: series.id, value }, { onSuccess: () => { setTyped('') } }) }}>
        <Field label={`A reading by hand, ${series.unit}`} value={typed} onChange={setTyped} inputMode="decimal" mono />
      </form>
    </>
  )
}

const Frame = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding-left: ${space(1)};
  border-left: 3px solid ${color.line};
`
const Shown = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px ${space(2)};
`
const Value = styled.output`
  font: 600 28px ${font.mono};
`
