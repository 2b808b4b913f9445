package unknowns

import (
	"context"
	"time"

	"frugalheron/store/pg"
	"frugalheron/store/unknowns"
)

// QuestionInput is what people write about something unknown.
type QuestionInput struct {
	Sort      string `json:"sort" enum:"chip,reading,card,board,unit,connector,switch,sign,other"`
	Subject   string `json:"subject" says:"text" maxLength:"200" doc:"Number or marking of a chip; else what it is called"`
	MachineID *int64 `json:"machineId" required:"false" nullable:"true" doc:"The machine it is on; null for a number that may be on several"`
	Text      string `json:"text" says:"text" maxLength:"4000" required:"false" doc:"What is asked, and what one sees"`
	Asked     string `json:"asked" says:"text" maxLength:"1000" required:"false" doc:"Who was asked, and when"`
}

// Question is something unknown that somebody wrote about.
type Question struct {
	ID int64 `json:"id"`
	QuestionInput
	Answer     string  `json:"answer" says:"text" doc:"Empty while it is open"`
	Source     string  `json:"source" says:"text" doc:"Where the answer comes from"`
	AnsweredOn *string `json:"answeredOn" doc:"YYYY-MM-DD, or null while it is open"`
	Version    int     `json:"version"`
}

func questionOf(q unknowns.Question) Question {
	return Question{q.ID, QuestionInput(q.QuestionFields), q.Answer, q.Source, q.AnsweredOn, q.Version}
}

func questionByID(ctx context.Context, h pg.Handle, id int64) (Question, error) {
	q, err := unknowns.QuestionByID(ctx, h, id)
	return questionOf(q), err
}

// QuestionView is a question with what was guessed.
type QuestionView struct {
	Question
	Guesses []Guess `json:"guesses" doc:"The oldest first"`
}

// Guess is what somebody thinks the answer could be.
type Guess struct {
	ID     int64     `json:"id"`
	Text   string    `json:"text" says:"text"`
	Reason string    `json:"reason" says:"text"`
	By     string    `json:"by"`
	At     time.Time `json:"at"`
}

// UnknownEntry is a line of a kept sheet with a chip that nobody has named, or a doubtful reading.
type UnknownEntry struct {
	MachineID   *int64  `json:"machineId" doc:"Null for an assembly that is in no machine"`
	Accession   string  `json:"accession"`
	Machine     string  `json:"machine" says:"text"`
	AssemblyID  int64   `json:"assemblyId"`
	Assembly    string  `json:"assembly" says:"text"`
	Line        int     `json:"line"`
	Designators string  `json:"designators" doc:"With spaces between"`
	Count       int     `json:"count"`
	Kind        string  `json:"kind" doc:"What sort of part the line is about"`
	Marking     string  `json:"marking"`
	Doubtful    bool    `json:"doubtful" doc:"A character of the reading is in doubt"`
	TypeNumber  string  `json:"typeNumber" doc:"What it was taken for all the same, or empty"`
	Date        *string `json:"date" doc:"First day of its date code, or null"`
	Neighbours  string  `json:"neighbours" doc:"Known types on the lines around, with spaces between"`
}
