import { Link } from 'react-router'
import styled from 'styled-components'

import type { Agreement, SignReading } from '../../api/signs'
import { Mark, type MarkKind } from '../../kit/Mark'
import { Faint } from '../../kit/Page'
import { font } from '../../theme'
import { Cards, Said } from './SignTable'

const marks: Record<SignReading['reading']['outcome'], MarkKind> = { 'as expected': 'done', 'not as expected': 'problem',
  listed: 'part', perhaps: 'unknown', unmatched: 'unknown', 'no list': 'unknown' }

/** What something that was seen amounts to: what is listed for it, or what comes nearest, and a code field by field. */
export function WhatItMeans({ read }: { read: SignReading }) {
  const { reading, answer, of } = read
  return (
    <Told>
      <p><Mark kind={answer ? 'done' : marks[reading.outcome]} /> <strong>{answer ? 'answered' : reading.outcome}</strong>
        {answer ? <>: {answer.text} <Faint>{answer.source}, {answer.on}</Faint></> : `: ${reading.why}`}</p>
      {reading.matches.length > 0 && <ul>{reading.matches.map((one) => (
        <li key={`${String(one.of)} ${String(one.line)}`}>
          {one.doubts.length > 0 && 'perhaps '}<strong>{one.meaning}</strong>{one.next && <>; next: {one.next}</>}
          {one.at.length > 0 && <> <Faint>with</Faint> <Said>{one.at.join(', ')}</Said></>}
          <Faint> ({of[one.of]}{one.state && `, ${one.state}`}, {one.source || 'recalled'})</Faint>
          {one.doubts.length > 0 && <><br /><Faint>{one.doubts.join('; ')}</Faint></>}
          <Cards sign={one} />
        </li>
      ))}</ul>}
      {!answer && reading.nearest.length > 0 && <ul aria-label="What comes nearest">{reading.nearest.map((one) => (
        <li key={`${String(one.of)} ${String(one.line)}`}>
          <Faint>nearest:</Faint> <Said>{one.shown}</Said> {one.meaning}; {differences(one)}
          <Faint> ({of[one.of]})</Faint>
        </li>
      ))}</ul>}
      {reading.words.map((word) => (
        <p key={word.of}>
          <Word>{word.hex} hex · {word.octal} octal · {word.splitOctal} split octal · {word.binary} binary</Word>
          {word.fields.map((field) => <Field key={field.name + String(field.from)}>{field.name || 'bits'} {field.from}
            {field.from !== field.to && `-${String(field.to)}`}: {field.value} <Faint>({field.hex} hex, {field.octal} octal,{' '}
            {field.binary} binary)</Faint></Field>)}
        </p>
      ))}
      {!answer && (reading.outcome === 'unmatched' || reading.outcome === 'perhaps' || reading.outcome === 'no list')
        && <p><Faint>What it means is open: answer it among the <Link to="/library/unknowns">Unknowns</Link>, or write a
          line for it to the model or the card.</Faint></p>}
    </Told>
  )
}

function differences(one: Agreement): string {
  const said = [one.missing.length > 0 && `missing: ${one.missing.join(', ')}`,
    one.extra.length > 0 && `extra: ${one.extra.join(', ')}`,
    one.unlisted.length > 0 && `not in its row: ${one.unlisted.join(', ')}`, ...one.differs].filter(Boolean)
  return said.join('; ')
}

const Told = styled.div`
  p, ul { margin: 2px 0; }
  ul { padding-left: 20px; }
`
const Word = styled.span`
  display: block;
  font: 15px ${font.mono};
`
const Field = styled.span`
  display: block;
  font: 15px ${font.mono};
`
