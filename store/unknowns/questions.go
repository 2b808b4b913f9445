package unknowns

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// QuestionFields are what people write about something unknown.
type QuestionFields struct {
	Sort      string `db:"sort"`
	Subject   string `db:"subject"`    // number or marking of a chip; else what it is called
	MachineID *int64 `db:"machine_id"` // the machine it is on; null for a number that may be on several
	Text      string `db:"body"`       // what is asked, and what one sees
	Asked     string `db:"asked"`      // who was asked, and when
}

// Question is something unknown that somebody wrote about.
type Question struct {
	ID int64 `db:"id"`
	QuestionFields
	Answer     string  `db:"answer"`      // empty while it is open
	Source     string  `db:"source"`      // where the answer comes from
	AnsweredOn *string `db:"answered_on"` // YYYY-MM-DD, or null while it is open
	Version    int     `db:"version"`
}

const questionSelect = `SELECT q.id, q.sort, q.subject, q.machine_id, q.body, q.asked, q.answer, q.source,
	CAST(q.answered_on AS text) AS answered_on, q.version FROM question q `

// InsertQuestion adds a question and returns its id. One about the same violates question_subject_key.
func InsertQuestion(ctx context.Context, h pg.Handle, f QuestionFields) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO question (sort, subject, machine_id, body, asked) VALUES ($1, $2, $3, $4, $5) RETURNING id`,
		f.Sort, f.Subject, f.MachineID, f.Text, f.Asked)
	return id, err
}

// UpdateQuestion writes what is asked and who was asked, and counts the version up. The caller holds the
// row's lock.
func UpdateQuestion(ctx context.Context, h pg.Handle, id int64, f QuestionFields) error {
	_, err := h.ExecContext(ctx, `UPDATE question SET body = $2, asked = $3, version = version + 1 WHERE id = $1`, id,
		f.Text, f.Asked)
	return err
}

// AnswerQuestion writes an answer, on a day; an empty answer opens the question again.
func AnswerQuestion(ctx context.Context, h pg.Handle, id int64, answer, source string, on *string) error {
	_, err := h.ExecContext(ctx,
		`UPDATE question SET answer = $2, source = $3, answered_on = CAST($4 AS date), version = version + 1
			WHERE id = $1`, id, answer, source, on)
	return err
}

// QuestionByID reads a question.
func QuestionByID(ctx context.Context, h pg.Handle, id int64) (Question, error) {
	var q Question
	err := pg.Get(ctx, h, &q, fmt.Sprintf("question %d", id), questionSelect+`WHERE q.id = $1`, id)
	return q, err
}

// LockQuestion reads one and keeps others from changing it until the transaction ends.
func LockQuestion(ctx context.Context, h pg.Handle, id int64) (Question, error) {
	var q Question
	err := pg.Get(ctx, h, &q, fmt.Sprintf("question %d", id), questionSelect+`WHERE q.id = $1 FOR NO KEY UPDATE OF q`,
		id)
	return q, err
}

// ListQuestions lists questions of a machine and those of no machine in particular; 0 lists all.
func ListQuestions(ctx context.Context, h pg.Handle, machineID int64) ([]Question, error) {
	found := []Question{}
	err := h.SelectContext(ctx, &found,
		questionSelect+`WHERE CAST($1 AS bigint) = 0 OR q.machine_id IS NULL OR q.machine_id = $1
			ORDER BY q.answered_on IS NOT NULL, q.id LIMIT 2000`, machineID)
	return found, err
}

// Guess is what somebody thinks the answer could be.
type Guess struct {
	ID         int64     `db:"id"`
	QuestionID int64     `db:"question_id"`
	Text       string    `db:"body"`
	Reason     string    `db:"reason"`
	By         string    `db:"by_name"`
	At         time.Time `db:"at"`
}

// InsertGuess adds a guess.
func InsertGuess(ctx context.Context, h pg.Handle, questionID int64, by *int64, text, reason string) error {
	_, err := h.ExecContext(ctx, `INSERT INTO guess (question_id, body, reason, account_id) VALUES ($1, $2, $3, $4)`,
		questionID, text, reason, by)
	return err
}

// GuessesOf lists the guesses about questions, the oldest first.
func GuessesOf(ctx context.Context, h pg.Handle, questionIDs []int64) ([]Guess, error) {
	found := []Guess{}
	err := h.SelectContext(ctx, &found,
		`SELECT g.id, g.question_id, g.body, g.reason, COALESCE(c.name, '') AS by_name, g.at
		FROM guess g LEFT JOIN account c ON c.id = g.account_id WHERE g.question_id = ANY (CAST($1 AS bigint[]))
		ORDER BY g.id`, questionIDs)
	return found, err
}

// UnknownEntry is a line of a kept sheet with a chip that nobody has named, or a doubtful reading.
type UnknownEntry struct {
	MachineID   *int64  `db:"machine_id"` // null for an assembly that is in no machine
	Accession   string  `db:"accession"`
	Machine     string  `db:"machine"`
	AssemblyID  int64   `db:"assembly_id"`
	Assembly    string  `db:"assembly"`
	Line        int     `db:"line"`
	Designators string  `db:"designators"` // with spaces between
	Count       int     `db:"count"`
	Kind        string  `db:"kind"`
	Marking     string  `db:"marking"`
	Doubtful    bool    `db:"doubtful"`    // a character of the reading is in doubt
	TypeNumber  string  `db:"type_number"` // what it was taken for all the same, or empty
	Date        *string `db:"date_from"`   // first day of its date code, or null
	Neighbours  string  `db:"neighbours"`  // known types on the lines around, with spaces between
}

// ListUnknown lists such lines of a machine, or with 0 of everything that is not struck out.
func ListUnknown(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]UnknownEntry, error) {
	found := []UnknownEntry{}
	err := h.SelectContext(ctx, &found,
		`SELECT f.machine_id, COALESCE(m.accession, '') AS accession, COALESCE(m.name, '') AS machine, e.assembly_id,
			a.title AS assembly,
			e.line, array_to_string(e.designators, ' ') AS designators, e.count, e.kind, e.marking, e.doubtful,
			e.type_number,
			CAST(e.date_from AS text) AS date_from,
			COALESCE((SELECT string_agg(n.type_number, ' ' ORDER BY n.line) FROM entry n
				WHERE n.assembly_id = e.assembly_id AND n.line BETWEEN e.line - 2 AND e.line + 2
				AND n.type_number <> ''), '') AS neighbours
		FROM entry e JOIN assembly a ON a.id = e.assembly_id JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
		LEFT JOIN machine m ON m.id = f.machine_id
		WHERE NOT e.empty AND (e.unidentified OR e.doubtful AND e.kind = 'chip')
			AND (CAST($1 AS bigint) = 0 OR f.machine_id = $1)
		ORDER BY m.accession NULLS LAST, f.ordinal, e.assembly_id, e.line LIMIT $2`, machineID, limit)
	return found, err
}

// FoundOpen is a connector that was found open, of which nobody knows where it goes.
type FoundOpen struct {
	MachineID int64  `db:"machine_id"`
	Accession string `db:"accession"`
	Machine   string `db:"machine"`
	Name      string `db:"name"`
	From      string `db:"from_board"`
}

// ListFoundOpen lists such connectors of a machine, or with 0 of all.
func ListFoundOpen(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]FoundOpen, error) {
	found := []FoundOpen{}
	err := h.SelectContext(ctx, &found, `SELECT c.machine_id, m.accession, m.name AS machine, c.name,
			COALESCE(c.body->>'fromBoard', '') AS from_board
		FROM connector c JOIN machine m ON m.id = c.machine_id
		WHERE c.open AND NOT c.voided AND c.body->>'foundOpen' = 'true' AND (CAST($1 AS bigint) = 0 OR c.machine_id = $1)
		ORDER BY m.accession, c.name LIMIT $2`, machineID, limit)
	return found, err
}
