package history

import (
	"context"
	"strings"
	"time"

	"frugalheron/app/action"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
)

// EventView is an event of the history in a curator's words.
type EventView struct {
	ID         int64        `json:"id"`
	At         time.Time    `json:"at"`
	By         string       `json:"by" doc:"Who did it; empty for the command line"`
	Action     string       `json:"-"` // its stable name
	What       string       `json:"what" doc:"What was done, in words; names in it are those that the reader may know"`
	MachineID  *int64       `json:"machineId"`
	Accession  string       `json:"accession"`
	AssemblyID *int64       `json:"assemblyId" doc:"The assembly it was done to, or null"`
	Revision   int          `json:"revision" doc:"The revision of a sheet that was saved; else 0"`
	MayUndo    action.Roles `json:"mayUndo" doc:"Roles that may take it back; none where it cannot be, or where something was done to the record since"`
}

// EventPage is a page of the history, the newest first.
type EventPage struct {
	Events []EventView `json:"events"`
	Next   int64       `json:"next" doc:"Give this as before to get the next page; 0 on the last"`
}

// History tells who did what when: to a machine and its assemblies, or, for machine 0, to the
// whole collection. It starts below event before, or at the newest for 0.
func (s *Service) History(ctx context.Context, actor action.Actor, machineID, before int64,
	limit int) (EventPage, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return EventPage{}, err
	}
	if machineID != 0 {
		if _, err := inventory.MachineByID(ctx, s.kernel.Reader(ctx), machineID); err != nil {
			return EventPage{}, err
		}
	}
	return s.historyPage(ctx, actor, history.EventQuery{Machine: machineID, Before: before}, limit)
}

// AssemblyHistory tells who did what when to an assembly, wherever it was.
func (s *Service) AssemblyHistory(ctx context.Context, actor action.Actor, assemblyID, before int64,
	limit int) (EventPage, error) {
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return EventPage{}, err
	}
	return s.historyPage(ctx, actor, history.EventQuery{Assembly: assemblyID, Before: before}, limit)
}

// LotHistory tells who did what when to an arrival and its things.
func (s *Service) LotHistory(ctx context.Context, actor action.Actor, lotID, before int64,
	limit int) (EventPage, error) {
	if _, err := s.arrivals.Lot(ctx, actor, lotID); err != nil {
		return EventPage{}, err
	}
	return s.historyPage(ctx, actor, history.EventQuery{Lot: lotID, Before: before}, limit)
}

// historyPage tells up to limit events that the actor may read of.
func (s *Service) historyPage(ctx context.Context, actor action.Actor, q history.EventQuery,
	limit int) (EventPage, error) {
	page := EventPage{Events: []EventView{}}
	q.EventReader, q.Limit = action.ReaderOf(actor), limit+1 // one more means that another page follows
	events, err := history.ListEvents(ctx, s.kernel.Reader(ctx), q)
	if err != nil {
		return page, err
	}
	text := func(text string) string { return text }
	if actor.Hides() {
		p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
		if err != nil {
			return page, err
		}
		text = p.Text
	}
	if len(events) > limit {
		events = events[:limit]
		page.Next = events[limit-1].ID
	}
	for _, e := range events {
		page.Events = append(page.Events, s.tell(e, text))
	}
	return page, nil
}

// tell says an event in words; text is how texts in it are written for whoever reads.
func (s *Service) tell(e history.EventRow, text func(string) string) EventView {
	told := EventView{ID: e.ID, At: e.At, By: e.By, MachineID: e.MachineID, Accession: e.Accession, What: e.Action,
		Action:  e.Action,
		MayUndo: action.Roles{}}
	kind := action.EventOf(e.Action)
	if kind == nil {
		return told // of a version that is not ours
	}
	if by, take := s.kernel.UndoOf(e.Action); take != nil && e.IsNewest {
		told.MayUndo = by
	}
	before, after := action.FieldsIn(e.Before), action.FieldsIn(e.After)
	if e.SubjectKind == "assembly" {
		told.AssemblyID = &e.SubjectID
	}
	if n, ok := after["revision"].(float64); ok && e.Action == history.ActionSaveSheet {
		told.Revision = int(n)
	}
	action.RewriteTold(before, text)
	action.RewriteTold(after, text)
	told.What = strings.Join(strings.Fields(kind.Words(text(e.Subject), before, after)), " ")
	return told
}
