package condition

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/evidence"
	"frugalheron/store/pg"
)

// SurveyRow is one inspection of a machine.
type SurveyRow struct {
	ID          int64     `db:"id"`
	MachineID   int64     `db:"machine_id"`
	On          string    `db:"made_on"`
	By          string    `db:"made_by"`
	Inspections string    `db:"inspections"` // JSON, by subsystem
	Cosmetic    string    `db:"cosmetic"`
	Note        string    `db:"note"`
	Finished    bool      `db:"finished"`
	Version     int       `db:"version"`
	At          time.Time `db:"at"`
}

const surveySelect = `SELECT s.id, s.machine_id, CAST(s.made_on AS text) AS made_on, COALESCE(NULLIF(s.made_by, ''),
	a.name, '') AS made_by,
		CAST(s.inspections AS text) AS inspections, s.cosmetic, s.note, s.finished, s.version, s.at
	FROM survey s LEFT JOIN account a ON a.id = s.account_id `

// SurveysOf lists the surveys of a machine in the order of their days.
func SurveysOf(ctx context.Context, h pg.Handle, machineID int64) ([]SurveyRow, error) {
	found := []SurveyRow{}
	err := h.SelectContext(ctx, &found, surveySelect+`WHERE s.machine_id = $1 ORDER BY s.made_on, s.id`, machineID)
	return found, err
}

// SurveyByID reads one.
func SurveyByID(ctx context.Context, h pg.Handle, id int64) (SurveyRow, error) {
	var s SurveyRow
	err := pg.Get(ctx, h, &s, fmt.Sprintf("survey %d", id), surveySelect+`WHERE s.id = $1`, id)
	return s, err
}

// InsertSurvey starts one and returns its id. While another runs it violates survey_running_key.
func InsertSurvey(ctx context.Context, h pg.Handle, by *int64, machineID int64, on, madeBy string) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO survey (machine_id, made_on, made_by, account_id) VALUES ($1, CAST($2 AS date), $3, $4)
			RETURNING id`, machineID, on, madeBy, by)
	return id, err
}

// UpdateSurvey rewrites one and counts its version up.
func UpdateSurvey(ctx context.Context, h pg.Handle, id int64, inspections, cosmetic, note string, finished bool) error {
	_, err := h.ExecContext(ctx,
		`UPDATE survey SET inspections = CAST($2 AS jsonb), cosmetic = $3, note = $4, finished = $5, version = version + 1
			WHERE id = $1`, id, inspections, cosmetic, note, finished)
	return err
}

// FindingFields say what was found, and where.
type FindingFields struct {
	Subsystem    string           `db:"subsystem"`
	Kind         string           `db:"kind"`          // as leaking, cracked
	AssemblyID   *int64           `db:"assembly_id"`   // the board it is on
	Designator   string           `db:"designator"`    // as BT1
	Place        string           `db:"place"`         // where, in words
	AttachmentID *int64           `db:"attachment_id"` // a picture that shows it
	Region       *evidence.Region `db:"region"`        // where on the picture
}

// Finding is something found on a machine, or on a board that is in none.
type Finding struct {
	ID        int64  `db:"id"`
	MachineID *int64 `db:"machine_id"` // that it was found on; null for a board that was in none
	FindingFields
	Assembly string  `db:"assembly"` // what the board is called; empty for none
	Line     int     `db:"line"`     // where the designator stands on the board's sheet today; 0 for nowhere
	LeftOn   *string `db:"left_on"`  // when its board left the machine that the list is of; null while it is there
	Voided   bool    `db:"voided"`
	Version  int     `db:"version"`
}

// findingSelect reads findings for the machine in $1; 0 for none.
const findingSelect = `SELECT f.id, f.machine_id, f.subsystem, f.kind, f.assembly_id, f.designator, f.place,
	f.attachment_id, f.region, f.voided, f.version,
		COALESCE(a.title, '') AS assembly,
		COALESCE((SELECT min(e.line) FROM entry e WHERE e.assembly_id = f.assembly_id
		AND f.designator = ANY (e.designators)), 0) AS line,
		CASE WHEN f.machine_id = $1 AND f.assembly_id IS NOT NULL AND NOT EXISTS (SELECT 1 FROM fitting x
		WHERE x.assembly_id = f.assembly_id AND x.machine_id = $1 AND x.until IS NULL)
		THEN (SELECT CAST(CAST(max(x.until) AS date) AS text) FROM fitting x WHERE x.assembly_id = f.assembly_id
		AND x.machine_id = $1) END AS left_on
	FROM finding f LEFT JOIN assembly a ON a.id = f.assembly_id `

// ofMachine chooses what was found on the machine in $1, and on the boards that are in it today, wherever that was.
const ofMachine = `(f.machine_id = $1 OR f.assembly_id IN (SELECT x.assembly_id FROM fitting x
	WHERE x.machine_id = $1 AND x.until IS NULL)) AND NOT f.voided `

// FindingsOf lists what was found on a machine and on the boards in it, in the order it was found; without what was
// struck out.
func FindingsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Finding, error) {
	found := []Finding{}
	err := h.SelectContext(ctx, &found, findingSelect+`WHERE `+ofMachine+`ORDER BY f.id`, machineID)
	return found, err
}

// FindingsOnBoard lists what was found on a board, wherever it was then.
func FindingsOnBoard(ctx context.Context, h pg.Handle, assemblyID int64) ([]Finding, error) {
	found := []Finding{}
	err := h.SelectContext(ctx, &found, findingSelect+`WHERE f.assembly_id = $2 AND NOT f.voided ORDER BY f.id`, 0,
		assemblyID)
	return found, err
}

// FindingByID reads one, struck or not.
func FindingByID(ctx context.Context, h pg.Handle, id int64) (Finding, error) {
	var f Finding
	err := pg.Get(ctx, h, &f, fmt.Sprintf("finding %d", id), findingSelect+`WHERE f.id = $2`, 0, id)
	return f, err
}

// InsertFinding adds one and returns its id. The machine is null for what is found on a board that is in none.
func InsertFinding(ctx context.Context, h pg.Handle, machineID *int64, f FindingFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO finding (machine_id, subsystem, kind, assembly_id, designator, place, attachment_id, region)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8) RETURNING id`, machineID, f.Subsystem, f.Kind, f.AssemblyID,
		f.Designator, f.Place, f.AttachmentID, f.Region)
	return id, err
}

// VoidFinding strikes one out, or takes that back.
func VoidFinding(ctx context.Context, h pg.Handle, id int64, voided bool) error {
	_, err := h.ExecContext(ctx, `UPDATE finding SET voided = $2, version = version + 1 WHERE id = $1`, id, voided)
	return err
}

// ObservationRow is a finding as it was seen on a day.
type ObservationRow struct {
	ID        int64  `db:"id"`
	FindingID int64  `db:"finding_id"`
	SurveyID  *int64 `db:"survey_id"` // the survey it was seen in, or null
	On        string `db:"seen_on"`
	Severity  string `db:"severity"`
	Trend     string `db:"trend"`
	Gone      bool   `db:"gone"`
	Note      string `db:"note"`
	By        string `db:"by_name"`

	At time.Time `db:"at"` // when it was written down
}

const observationSelect = `SELECT s.id, s.finding_id, s.survey_id, CAST(s.seen_on AS text) AS seen_on, s.severity, s.trend,
	s.gone, s.note, COALESCE(a.name, '') AS by_name, s.at
	FROM finding f JOIN observation s ON s.finding_id = f.id LEFT JOIN account a ON a.id = s.account_id `

// ObservationsOnBoard lists all observations of a board's findings, by finding and day.
func ObservationsOnBoard(ctx context.Context, h pg.Handle, assemblyID int64) ([]ObservationRow, error) {
	found := []ObservationRow{}
	err := h.SelectContext(ctx, &found, observationSelect+`WHERE f.assembly_id = $1 AND NOT f.voided
		ORDER BY s.finding_id, s.seen_on, s.id`, assemblyID)
	return found, err
}

// ObservationsOf lists all observations of the findings of a machine, by finding and day.
func ObservationsOf(ctx context.Context, h pg.Handle, machineID int64) ([]ObservationRow, error) {
	found := []ObservationRow{}
	err := h.SelectContext(ctx, &found, observationSelect+`WHERE `+ofMachine+`ORDER BY s.finding_id, s.seen_on, s.id`,
		machineID)
	return found, err
}

// PutObservation notes how a finding was seen; one of the same survey is rewritten.
func PutObservation(ctx context.Context, h pg.Handle, by *int64, s ObservationRow) error {
	_, err := h.ExecContext(ctx,
		`INSERT INTO observation (finding_id, survey_id, seen_on, severity, trend, gone, note, account_id)
			VALUES ($1, $2, CAST($3 AS date), $4, $5, $6, $7, $8)
		ON CONFLICT (finding_id, survey_id) WHERE survey_id IS NOT NULL DO UPDATE
		SET severity = excluded.severity, trend = excluded.trend, gone = excluded.gone, note = excluded.note`,
		s.FindingID, s.SurveyID, s.On, s.Severity, s.Trend, s.Gone, s.Note, by)
	return err
}
