package httpx

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"strconv"
	"time"
	"unicode"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/bench"
	"frugalheron/app/condition"
	"frugalheron/app/console"
	"frugalheron/app/diagnosis"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	"frugalheron/app/people"
	"frugalheron/app/power"
	"frugalheron/app/roms"
	"frugalheron/app/setup"
	"frugalheron/app/sharing"
	"frugalheron/app/sheets"
	"frugalheron/app/signs"
	"frugalheron/app/teardown"
	"frugalheron/app/unknowns"
	"frugalheron/app/upkeep"
	"frugalheron/app/wanted"
	"frugalheron/app/work"
	"frugalheron/store/blobs"
	"frugalheron/store/pg"
)

// Problem is the one shape of errors: problem details as in RFC 9457, with the fields that are
// wrong and, after a stale save, the record as it is now.
type Problem struct {
	Type   string         `json:"type,omitempty" doc:"URI of the kind of problem; about:blank when absent"`
	Title  string         `json:"title" doc:"The kind of problem in a few words"`
	Status int            `json:"status"`
	Detail string         `json:"detail" says:"text" doc:"What happened, and what to do"`
	Errors []FieldProblem `json:"errors,omitempty"`
	Newer  *Newer         `json:"newer,omitempty" doc:"After a refused save: the record as it is now"`
}

// FieldProblem says what is wrong with one field.
type FieldProblem struct {
	Location string `json:"location" doc:"Where, as body.name"`
	Message  string `json:"message" says:"text"`
}

// Newer holds the record that a stale save met; one of its fields is set.
type Newer struct {
	Machine  *inventory.Machine    `json:"machine,omitempty"`
	Assembly *inventory.Assembly   `json:"assembly,omitempty"`
	Sheet    *sheets.Revision      `json:"sheet,omitempty"`
	OwnType  *library.OwnType      `json:"ownType,omitempty"`
	Account  *accounts.AccountView `json:"account,omitempty"`

	Party            *people.Party                `json:"party,omitempty"`
	Custody          *arrivals.Custody            `json:"custody,omitempty"`
	PersonalData     *people.PersonalData         `json:"personalData,omitempty"`
	Lot              *arrivals.Acquisition        `json:"lot,omitempty"`
	Collection       *inventory.Collection        `json:"collection,omitempty"`
	Attachment       *files.Attachment            `json:"attachment,omitempty"`
	Rom              *roms.RomImage               `json:"rom,omitempty"`
	Model            *library.MachineModel        `json:"model,omitempty"`
	KnownAssembly    *library.KnownAssembly       `json:"knownAssembly,omitempty"`
	Question         *unknowns.Question           `json:"question,omitempty"`
	Maker            *library.Maker               `json:"maker,omitempty"`
	Identification   *unknowns.IdentificationView `json:"identification,omitempty"`
	Annotation       *files.AnnotationView        `json:"annotation,omitempty"`
	Connector        *teardown.ConnectorView      `json:"connector,omitempty"`
	Step             *teardown.StepView           `json:"step,omitempty"`
	Procedure        *teardown.Procedure          `json:"procedure,omitempty"`
	Survey           *condition.SurveyView        `json:"survey,omitempty"`
	Finding          *condition.Finding           `json:"finding,omitempty"`
	Measurement      *condition.Measurement       `json:"measurement,omitempty"`
	Serving          *sharing.Serving             `json:"serving,omitempty"`
	Job              *work.Job                    `json:"job,omitempty"`
	Choice           *work.Choice                 `json:"choice,omitempty"`
	Stock            *parts.Stock                 `json:"stock,omitempty"`
	Order            *parts.Order                 `json:"order,omitempty"`
	Want             *wanted.Want                 `json:"want,omitempty"`
	Offer            *wanted.Offer                `json:"offer,omitempty"`
	Capture          *console.Capture             `json:"capture,omitempty"`
	Diagnosis        *diagnosis.Diagnosis         `json:"diagnosis,omitempty"`
	Layout           *diagnosis.MemoryLayout      `json:"layout,omitempty"`
	Configuration    *setup.Configuration         `json:"configuration,omitempty"`
	OperatingCard    *setup.OperatingCard         `json:"operatingCard,omitempty"`
	Backplane        *setup.Backplane             `json:"backplane,omitempty"`
	MemoryRules      *setup.MemoryRules           `json:"memoryRules,omitempty"`
	Credential       *setup.Credential            `json:"credential,omitempty"`
	Rule             *upkeep.Rule                 `json:"rule,omitempty"`
	Round            *upkeep.RoundSummary         `json:"round,omitempty"`
	Deed             *upkeep.Deed                 `json:"deed,omitempty"`
	Plan             *upkeep.Plan                 `json:"plan,omitempty"`
	Supply           *power.Supply                `json:"supply,omitempty"`
	Rung             *power.RungView              `json:"rung,omitempty"`
	PowerUp          *power.PowerUpView           `json:"powerUp,omitempty"`
	PowerPart        *power.PowerPart             `json:"powerPart,omitempty"`
	Sighting         *signs.Sighting              `json:"sighting,omitempty"`
	Adjuster         *condition.Adjuster          `json:"adjuster,omitempty"`
	MaintenanceClass *condition.OwnClass          `json:"maintenanceClass,omitempty"`
	Mention          *people.Mention              `json:"mention,omitempty"`
}

// Error returns the detail.
func (p *Problem) Error() string { return p.Detail }

// GetStatus returns the HTTP status.
func (p *Problem) GetStatus() int { return p.Status }

// ContentType marks JSON as problem details.
func (p *Problem) ContentType(string) string { return "application/problem+json" }

// NewProblem builds the errors that huma itself reports. Rejected values are not repeated: they
// may be passwords. Causes are not shown: they may be anything.
func NewProblem(status int, message string, causes ...error) huma.StatusError {
	p := &Problem{Title: http.StatusText(status), Status: status, Detail: message}
	for _, cause := range causes {
		var detailer huma.ErrorDetailer
		if errors.As(cause, &detailer) {
			detail := detailer.ErrorDetail()
			p.Errors = append(p.Errors, FieldProblem{detail.Location, detail.Message})
		}
	}
	if status >= http.StatusInternalServerError {
		for _, cause := range causes {
			slog.Error("request failed", "message", message, "cause", cause)
		}
		p.Detail = serverFailed
	}
	return p
}

// serverFailed is what people are told of an error that is not meant for them.
const serverFailed = "Something went wrong on the server; nothing was changed. Try again."

// problem turns an error of an action into what the client is told. Errors that are not meant for
// people are logged and answered with a bare 500.
func problem(ctx context.Context, err error) error {
	var invalid *action.Invalid
	var stale *action.Stale
	var tooMany *accounts.TooMany
	var busy *action.Busy
	switch {
	case err == nil:
		return nil
	case errors.As(err, &invalid):
		return fieldProblem(invalid.Field, invalid.Why)
	case errors.As(err, &stale):
		return &Problem{Title: "Changed meanwhile", Status: http.StatusConflict, Detail: sentence(stale.Error()),
			Newer: newer(stale.Newer)}
	case errors.As(err, &tooMany):
		return later(&Problem{Title: "Too many attempts", Status: http.StatusTooManyRequests,
			Detail: sentence(tooMany.Error())}, tooMany.RetryIn+time.Second)
	case errors.As(err, &busy):
		return later(&Problem{Title: "Busy", Status: http.StatusServiceUnavailable, Detail: sentence(busy.Error())},
			busyLasts)
	case errors.Is(err, context.Canceled), errors.Is(ctx.Err(), context.Canceled):
		return &Problem{Title: "Given up", Status: statusGivenUp, Detail: "Whoever asked did not wait for the answer."}
	case pg.IsFull(err):
		slog.Error("the database's disk is full", "cause", err)
		return &Problem{Title: "No space left", Status: http.StatusInsufficientStorage,
			Detail: "There is no space left for the database; nothing was changed. Tell whoever runs the server."}
	case errors.Is(err, context.DeadlineExceeded), pg.IsAway(err):
		slog.Error("the database is away", "cause", err)
		return later(&Problem{Title: "Database does not answer", Status: http.StatusServiceUnavailable,
			Detail: "The database does not answer. What you typed is still here; try again in a moment."}, awayLasts)
	case pg.IsOutOfRange(err):
		slog.Warn("a value that cannot be kept was not refused earlier", "cause", err)
		return &Problem{Title: "Not acceptable as it is", Status: http.StatusUnprocessableEntity,
			Detail: "A value lies outside of what can be kept; nothing was changed. Look for a number that is too large, or an odd character."}
	case errors.Is(err, action.ErrNotFound):
		return &Problem{Title: "Not found", Status: http.StatusNotFound, Detail: "There is no such record."}
	case errors.Is(err, blobs.ErrFull):
		slog.Error("uploads cannot be kept", "cause", err)
		return &Problem{Title: "No space left", Status: http.StatusInsufficientStorage,
			Detail: "There is no space left where pictures and documents are kept; nothing of the file was kept. Tell whoever runs the server."}
	case errors.Is(err, bench.ErrAnswerGone):
		return &Problem{Title: "Answer is gone", Status: http.StatusGone, Detail: sentence(err.Error())}
	case errors.Is(err, blobs.ErrNotFound):
		slog.Error("a file is missing", "cause", err)
		return &Problem{Title: "File is missing", Status: http.StatusGone,
			Detail: "The record is here, but its file is missing from the store. Upload the same file again, or have it brought back from a backup."}
	case errors.Is(err, blobs.ErrDamaged):
		slog.Error("a file is damaged", "cause", err)
		return &Problem{Title: "File is damaged", Status: http.StatusGone,
			Detail: "The file in the store is no longer what was uploaded, so it is not shown. Upload the same file again, or have it brought back from a backup."}
	case errors.Is(err, action.ErrOtherRequest):
		return &Problem{Title: "Not acceptable as it is", Status: http.StatusUnprocessableEntity,
			Detail: sentence(err.Error())}
	case errors.Is(err, action.ErrStillAtWork):
		return later(&Problem{Title: "Still at work", Status: http.StatusConflict, Detail: sentence(err.Error())},
			busyLasts)
	case errors.Is(err, action.ErrAnswerLost):
		return &Problem{Title: "Done already", Status: http.StatusConflict, Detail: sentence(err.Error())}
	case errors.Is(err, upkeep.ErrFeedEnded):
		return &Problem{Title: "Address has ended", Status: http.StatusGone, Detail: sentence(err.Error())}
	case errors.Is(err, accounts.ErrLinkEnded):
		return &Problem{Title: "Link has ended", Status: http.StatusNotFound,
			Detail: sentence(accounts.ErrLinkEnded.Error())}
	case errors.Is(err, action.ErrForbidden):
		return &Problem{Title: "Not allowed", Status: http.StatusForbidden,
			Detail: sentence(action.ErrForbidden.Error())}
	case errors.Is(err, accounts.ErrSignIn):
		return &Problem{Title: "Not signed in", Status: http.StatusUnauthorized,
			Detail: sentence(accounts.ErrSignIn.Error())}
	}
	return NewProblem(http.StatusInternalServerError, "unexpected error", err)
}

// How long a client waits before it tries again.
const (
	busyLasts = 5 * time.Second
	awayLasts = 10 * time.Second
)

func later(p *Problem, wait time.Duration) error {
	return huma.ErrorWithHeaders(p, http.Header{"Retry-After": {strconv.Itoa(int(wait / time.Second))}})
}

func fieldProblem(field, why string) *Problem {
	return &Problem{Title: "Not acceptable as it is", Status: http.StatusUnprocessableEntity, Detail: sentence(why),
		Errors: []FieldProblem{{"body." + field, sentence(why)}}}
}

// statusGivenUp is what is logged of a request that nobody waits for any more; nobody is sent it.
const statusGivenUp = 499

// sentence writes an error's text as people read it.
func sentence(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	return string(unicode.ToUpper(first)) + text[size:] + "."
}

func newer(record any) *Newer {
	switch r := record.(type) {
	case inventory.Machine:
		return &Newer{Machine: &r}
	case inventory.Assembly:
		return &Newer{Assembly: &r}
	case sheets.Revision:
		return &Newer{Sheet: &r}
	case library.OwnType:
		return &Newer{OwnType: &r}
	case accounts.AccountView:
		return &Newer{Account: &r}
	case roms.RomImage:
		return &Newer{Rom: &r}
	case library.MakerView:
		return &Newer{Maker: &r.Maker}
	case unknowns.Question:
		return &Newer{Question: &r}
	case unknowns.IdentificationView:
		return &Newer{Identification: &r}
	case files.AnnotationView:
		return &Newer{Annotation: &r}
	case teardown.ConnectorView:
		return &Newer{Connector: &r}
	case teardown.StepView:
		return &Newer{Step: &r}
	case teardown.Procedure:
		return &Newer{Procedure: &r}
	case condition.SurveyView:
		return &Newer{Survey: &r}
	case condition.Finding:
		return &Newer{Finding: &r}
	case sharing.Serving:
		return &Newer{Serving: &r}
	case work.Job:
		return &Newer{Job: &r}
	case parts.Stock:
		return &Newer{Stock: &r}
	case work.Choice:
		return &Newer{Choice: &r}
	case upkeep.Rule:
		return &Newer{Rule: &r}
	case upkeep.RoundSummary:
		return &Newer{Round: &r}
	case upkeep.Deed:
		return &Newer{Deed: &r}
	case upkeep.Plan:
		return &Newer{Plan: &r}
	case parts.Order:
		return &Newer{Order: &r}
	case wanted.Want:
		return &Newer{Want: &r}
	case wanted.Offer:
		return &Newer{Offer: &r}
	case diagnosis.MemoryLayout:
		return &Newer{Layout: &r}
	case setup.Configuration:
		return &Newer{Configuration: &r}
	case setup.MemoryRules:
		return &Newer{MemoryRules: &r}
	case setup.Backplane:
		return &Newer{Backplane: &r}
	case setup.OperatingCard:
		return &Newer{OperatingCard: &r}
	case setup.Credential:
		return &Newer{Credential: &r}
	case diagnosis.Diagnosis:
		return &Newer{Diagnosis: &r}
	case console.Capture:
		return &Newer{Capture: &r}
	case power.Supply:
		return &Newer{Supply: &r}
	case power.RungView:
		return &Newer{Rung: &r}
	case power.PowerUpView:
		return &Newer{PowerUp: &r}
	case power.PowerPart:
		return &Newer{PowerPart: &r}
	case signs.Sighting:
		return &Newer{Sighting: &r}
	case condition.Measurement:
		return &Newer{Measurement: &r}
	case condition.Adjuster:
		return &Newer{Adjuster: &r}
	case condition.OwnClass:
		return &Newer{MaintenanceClass: &r}
	case people.Mention:
		return &Newer{Mention: &r}
	case library.KnownAssembly:
		return &Newer{KnownAssembly: &r}
	case library.MachineModel:
		return &Newer{Model: &r}
	case people.Party:
		return &Newer{Party: &r}
	case arrivals.Custody:
		return &Newer{Custody: &r}
	case people.PersonalData:
		return &Newer{PersonalData: &r}
	case arrivals.Acquisition:
		return &Newer{Lot: &r}
	case inventory.Collection:
		return &Newer{Collection: &r}
	case files.Attachment:
		return &Newer{Attachment: &r}
	}
	return nil
}
