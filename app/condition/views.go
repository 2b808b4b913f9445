package condition

import (
	"frugalheron/app/evidence"
	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
	storeevidence "frugalheron/store/evidence"
)

// MachineName is how a machine is called in a list.
type MachineName struct {
	ID        int64  `json:"id"`
	Accession string `json:"accession"`
	Name      string `json:"name" says:"text"`
	Place     string `json:"place" says:"text"`
}

// FindingInput says what was found, and where.
type FindingInput struct {
	Subsystem    string           `json:"subsystem" maxLength:"40"`
	Kind         string           `json:"kind" maxLength:"100" doc:"As leaking, cracked"`
	AssemblyID   *int64           `json:"assemblyId,omitempty" doc:"The board it is on"`
	Designator   string           `json:"designator" maxLength:"40" required:"false" doc:"As BT1"`
	Place        string           `json:"place" says:"text" maxLength:"300" required:"false" doc:"Where, in words"`
	AttachmentID *int64           `json:"attachmentId,omitempty" doc:"A picture that shows it"`
	Region       *evidence.Region `json:"region,omitempty" doc:"Where on the picture"`
}

func findingInputOf(r storecondition.FindingFields) FindingInput {
	return FindingInput{Subsystem: r.Subsystem, Kind: r.Kind, AssemblyID: r.AssemblyID, Designator: r.Designator,
		Place: r.Place, AttachmentID: r.AttachmentID, Region: (*evidence.Region)(r.Region)}
}

func (in FindingInput) row() storecondition.FindingFields {
	return storecondition.FindingFields{Subsystem: in.Subsystem, Kind: in.Kind, AssemblyID: in.AssemblyID,
		Designator: in.Designator, Place: in.Place, AttachmentID: in.AttachmentID,
		Region: (*storeevidence.Region)(in.Region)}
}

// Finding is something found on a machine.
type Finding struct {
	ID        int64  `json:"id"`
	MachineID *int64 `json:"machineId" doc:"That it was found on; null for a board that was in none"`
	FindingInput
	Assembly string `json:"assembly" says:"text" doc:"What the board is called; empty for none"`
	Line     int    `json:"line" doc:"Where the designator stands on the board's sheet today; 0 for nowhere"`
	Voided   bool   `json:"voided"`
	Version  int    `json:"version"`
}

func findingOf(r storecondition.Finding) Finding {
	return Finding{ID: r.ID, MachineID: r.MachineID, FindingInput: findingInputOf(r.FindingFields),
		Assembly: r.Assembly, Line: r.Line, Voided: r.Voided, Version: r.Version}
}

// Observation is a finding as it was seen on a day.
type Observation struct {
	ID       int64            `json:"id" doc:"0 where it follows from a sheet or a measurement"`
	SurveyID *int64           `json:"surveyId" doc:"The survey it was seen in, or null"`
	On       string           `json:"on"`
	Severity string           `json:"severity" enum:"cosmetic,watch,repair,hazard"`
	Trend    string           `json:"trend" enum:",worse,same,better"`
	Gone     bool             `json:"gone"`
	Note     string           `json:"note" says:"text"`
	By       string           `json:"by"`
	Source   condition.Source `json:"source" enum:"survey,note,sheet,outside,measurement,part"`
}

func observationOf(o condition.Observation) Observation {
	told := Observation{ID: o.ID, On: o.On, Severity: string(o.Severity), Trend: o.Trend, Gone: o.Gone, Note: o.Note,
		By: o.By, Source: o.Source}
	if o.SurveyID != 0 {
		told.SurveyID = &o.SurveyID
	}
	return told
}
