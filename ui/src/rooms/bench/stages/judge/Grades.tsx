import { Link } from 'react-router'
import styled from 'styled-components'

import type { Condition } from '../../../../api/judge'
import { Faint } from '../../../../kit/Page'
import { Facts, Part } from '../../../../kit/Part'
import { space } from '../../../../theme'
import { GradeSquare } from './GradeSquare'

/** The technical grade apart from the cosmetic one, each with what it means. */
export function Grades({ machineId, condition }: { machineId: number; condition: Condition }) {
  const means = (of: { grade: string; means: string }[], grade: string) =>
    of.find((one) => one.grade === grade)?.means ?? ''
  return (
    <Part title="Condition"
      action={condition.surveys.length > 0 && <Link to={`/bench/${String(machineId)}/condition-report`}>
        Report for paper
      </Link>}>
      <Facts>
        <dt>Technical grade</dt>
        <dd><GradeSquare grade={condition.technical} /> {means(condition.technicalGrades,
          condition.technical)} <Faint>({condition.technicalWhy})</Faint></dd>
        <dt>Cosmetic grade</dt>
        <dd>{condition.cosmetic ? <><strong>{condition.cosmetic}</strong> {means(condition.cosmeticGrades,
          condition.cosmetic)} <Faint>({condition.cosmeticOn})</Faint></> : 'nobody gave one yet'}</dd>
      </Facts>
      <More>
        <summary>What the grades mean</summary>
        <p><strong>Technical</strong>: {condition.technicalGrades.map(({ grade, means: text }) =>
          `${grade}: ${text}`).join('. ')}.</p>
        <p><strong>Cosmetic</strong>: {condition.cosmeticGrades.map(({ grade, means: text }) =>
          `${grade}: ${text}`).join('. ')}.</p>
      </More>
    </Part>
  )
}

const More = styled.details`
  font-size: 15px;
  summary { cursor: pointer; padding: ${space(1)} 0; }
`
