import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'

import { assembliesQuery, type FittedAssembly } from '../../api/assemblies'
import { type Machine, machineQuery } from '../../api/machines'
import { messageOf } from '../../api/problem'
import type { ReckonedBoard } from '../../api/reckoning'
import { today } from '../../features/history/moment'
import { Button } from '../../kit/Button'
import { Notice } from '../../kit/Notice'
import { Page } from '../../kit/Page'
import { OnScreen, Paper } from '../../kit/Paper'
import { useReckoning } from '../../features/reckoning/useReckoning'
import { color, font, space } from '../../theme'

/** The sheets of a machine with their reckoning, designed for paper. */
export default function PrintView() {
  const machineId = Number(useParams().machineId)
  const machine = useQuery(machineQuery(machineId))
  const assemblies = useQuery(assembliesQuery(machineId))
  const error = machine.error ?? assemblies.error
  if (error) return <Page><Notice tone="stop" word="Not read.">{messageOf(error)}</Notice></Page>
  return machine.data && assemblies.data ? <Dossier machine={machine.data} assemblies={assemblies.data} /> : null
}

function Dossier({ machine, assemblies }: { machine: Machine; assemblies: FittedAssembly[] }) {
  const reckoning = useReckoning({ machine: machine.id }, machine.version, assemblies)
  const facts = [machine.maker, machine.model, machine.serial && `serial ${machine.serial}`,
    machine.place].filter(Boolean).join(' · ')
  return (
    <Paper>
      <OnScreen>
        <Button $tone="main" onPress={() => { window.print() }}>Print</Button>
        <Link to={`/bench/${String(machine.id)}/take-stock`}>Back to the bench</Link>
      </OnScreen>
      <h1>{machine.accession} {machine.name}</h1>
      <p>{facts}</p>
      {machine.provenance && <p>{machine.provenance}</p>}
      <h2>Reckoning, {today()}</h2>
      <Verdicts>
        <tbody>
          {reckoning.machine?.verdicts.map((verdict) => (
            <tr key={verdict.key}>
              <th scope="row">{verdict.label}</th>
              <td>{verdict.value}{verdict.caution && <Caution><strong>Caution</strong> {verdict.caution}</Caution>}</td>
            </tr>
          ))}
        </tbody>
      </Verdicts>
      {assemblies.map((assembly) =>
        <Board key={assembly.id} assembly={assembly} reckoned={reckoning.board(assembly.id)} />)}
    </Paper>
  )
}

function Board({ assembly, reckoned }: { assembly: FittedAssembly; reckoned: ReckonedBoard | undefined }) {
  const { title, part, rev, serial, slot, revision } = assembly
  const facts = [part && `part ${part}`, rev && `rev ${rev}`, serial && `serial ${serial}`, slot && `slot ${slot}`,
    `sheet revision ${String(revision)}`]
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      <p>{facts.filter(Boolean).join(' · ')}</p>
      <Lines>
        <tbody>
          {assembly.body.split('\n').map((line, i) => {
            const state = reckoned?.lines.find((candidate) => candidate.line === i + 1)
            return (
              <tr key={i}>
                <td>{i + 1}</td>
                <td>{line}</td>
                <td>{state && state.state === 'problem' ? `problem: ${state.text}` : state?.text}</td>
              </tr>
            )
          })}
        </tbody>
      </Lines>
    </section>
  )
}

const Verdicts = styled.table`
  width: 100%;
  border-collapse: collapse;
  th, td { padding: 4px ${space(1)}; border-bottom: 1px solid ${color.line}; text-align: left; vertical-align: top; }
  th { width: 160px; font-weight: 400; color: ${color.faint}; }
  tr { break-inside: avoid; }
`
const Caution = styled.p`
  margin: 4px 0;
  padding: 4px ${space(1)};
  border: 1px solid ${color.amber};
  font-size: 14px;
`
const Lines = styled.table`
  width: 100%;
  border-collapse: collapse;
  td { padding: 2px ${space(1)}; border-bottom: 1px solid ${color.line}; vertical-align: top; overflow-wrap: anywhere; }
  td:first-child { width: 40px; text-align: right; color: ${color.faint}; font: 13px/20px ${font.mono}; }
  td:nth-child(2) { font: 13px/20px ${font.mono}; white-space: pre-wrap; }
  td:nth-child(3) { width: 40%; font-size: 13px; line-height: 20px; }
  tr { break-inside: avoid; }
`
