import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'

import { conditionQuery, measurementsQuery } from '../../../../api/judge'
import { machineQuery } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { today } from '../../../../features/history/moment'
import { Button } from '../../../../kit/Button'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Notice } from '../../../../kit/Notice'
import { Page } from '../../../../kit/Page'
import { OnScreen, Paper } from '../../../../kit/Paper'
import { Compared } from './Findings'
import { StripTable } from './Strip'

/** The condition of a machine on paper: grades, surveys side by side, findings, measurements. */
export default function ConditionReport() {
  const machineId = Number(useParams().machineId)
  const machine = useQuery(machineQuery(machineId))
  const condition = useQuery(conditionQuery(machineId))
  const measured = useQuery(measurementsQuery(machineId))
  const error = machine.error ?? condition.error ?? measured.error
  if (error) return <Page><Notice tone="stop" word="Not read.">{messageOf(error)}</Notice></Page>
  if (!machine.data || !condition.data || !measured.data) return null
  const { technical, technicalWhy, technicalGrades, cosmetic, cosmeticOn, cosmeticGrades, notInspected,
    surveys } = condition.data
  return (
    <Paper>
      <OnScreen>
        <Button $tone="main" onPress={() => { window.print() }}>Print</Button>
        <Link to={`/bench/${String(machineId)}/judge`}>Back to the bench</Link>
      </OnScreen>
      <h1>Condition report, {machine.data.accession} {machine.data.name}</h1>
      <p>{[machine.data.maker, machine.data.model, machine.data.serial && `serial ${machine.data.serial}`,
        machine.data.place, today()].filter(Boolean).join(' · ')}</p>
      <p><strong>Technical grade: {technical}</strong> ({technicalWhy})</p>
      <p><strong>Cosmetic grade: {cosmetic || 'none given'}</strong>{cosmeticOn && ` (${cosmeticOn})`}</p>
      {notInspected.length > 0 && <p><strong>Not inspected</strong>, which is not good: {notInspected.join(', ')}</p>}
      {surveys.length > 0 && <><h2>Over the years</h2><StripTable condition={condition.data} /></>}
      <h2>Findings</h2>
      {condition.data.findings.length > 0 ? <Compared on={{ machine: machineId }} condition={condition.data} mayWrite={false}
        forPaper /> : <p>None.</p>}
      {measured.data.length > 0 && (
        <>
          <h2>Measurements</h2>
          <Scroll tabIndex={0} role="group" aria-label="Measurements"><ListTable>
            <thead><tr><th>Point</th><th>Value</th><th>Verdict</th><th>Why</th><th>On</th></tr></thead>
            <tbody>{measured.data.map((one) => <tr key={one.id}><td>{one.point}</td><td>{one.judged.inWords}</td>
              <td>{one.judged.verdict}</td><td>{one.judged.why.join('; ')}</td><td>{one.on}</td></tr>)}</tbody>
          </ListTable></Scroll>
        </>
      )}
      <h2>What the grades mean</h2>
      <p>Technical: {technicalGrades.map(({ grade, means }) => `${grade}: ${means}`).join('. ')}.</p>
      <p>Cosmetic: {cosmeticGrades.map(({ grade, means }) => `${grade}: ${means}`).join('. ')}.</p>
    </Paper>
  )
}
