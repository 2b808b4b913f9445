package teardown

import (
	"time"

	storeteardown "frugalheron/store/teardown"
)

// Teardown is a log of how a machine was taken apart.
type Teardown struct {
	ID          int64      `json:"id"`
	MachineID   int64      `json:"machineId"`
	Purpose     string     `json:"purpose" says:"text" doc:"What it is opened for"`
	Rows        int        `json:"rows" doc:"Rows of the tray"`
	Columns     int        `json:"columns"`
	ProcedureID *int64     `json:"procedureId" doc:"The procedure of the model that it started from, or null"`
	Outcome     string     `json:"outcome" enum:"open,closed,closed with exceptions" doc:"With exceptions: something was left over, or left off on purpose"`
	Why         string     `json:"why" says:"text" doc:"What the outcome rests on; empty while it is open"`
	StartedBy   string     `json:"startedBy"`
	StartedAt   time.Time  `json:"startedAt"`
	EndedBy     string     `json:"endedBy"`
	EndedAt     *time.Time `json:"endedAt"`
}

// ProcedureInput is what people write about how a model is taken apart.
type ProcedureInput struct {
	Maker    string `json:"maker" maxLength:"200"`
	Model    string `json:"model" maxLength:"200"`
	Title    string `json:"title" says:"text" maxLength:"200" doc:"As Down to the main board"`
	Body     string `json:"body" says:"text" maxLength:"60000" doc:"A step a line, as in a log"`
	Warnings string `json:"warnings" says:"text" maxLength:"4000" required:"false" doc:"What to know before one starts"`
}

// Procedure is how machines of a model are taken apart.
type Procedure struct {
	ID int64 `json:"id"`
	ProcedureInput
	TeardownID *int64    `json:"teardownId" doc:"The log that it was made from, or null"`
	Version    int       `json:"version"`
	UpdatedAt  time.Time `json:"updatedAt"`
}

func procedureOf(p storeteardown.Procedure) Procedure {
	return Procedure{p.ID, ProcedureInput(p.ProcedureFields), p.TeardownID, p.Version, p.UpdatedAt}
}
