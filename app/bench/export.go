package bench

import (
	"context"
	"encoding/json"
	"strconv"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/app/power"
	"frugalheron/app/sheets"
	"frugalheron/app/teardown"
	"frugalheron/app/work"
	"frugalheron/core/job"
	"frugalheron/core/sheet"
	"frugalheron/core/table"
)

// Files travel on: private persons stand in them by their roles, whoever asks.

// ExportSheets writes all sheets of a machine as one text: a heading for each board, made from
// what is said of it and of its fitting, and below it the sheet letter by letter. Taking the text
// over into another machine gives the same boards.
func (s *Service) ExportSheets(ctx context.Context, actor action.Actor, machineID int64) (action.Content, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (action.Content, error) {
		return s.exportSheets(ctx, actor, machineID)
	})
}

func (s *Service) exportSheets(ctx context.Context, actor action.Actor, machineID int64) (action.Content, error) {
	machine, err := s.subjects.Inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	fitted, err := sheets.Contents(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return action.Content{}, err
	}
	p, err := s.subjects.People.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	var b strings.Builder
	for _, f := range people.PublicOf(p, fitted) {
		b.WriteString(headingOf(f.AssemblyInput).String() + "\n" + f.Body)
		if f.Body != "" && !strings.HasSuffix(f.Body, "\n") {
			b.WriteByte('\n')
		}
	}
	return action.Content{Data: []byte(b.String()), MediaType: "text/plain; charset=utf-8",
		FileName: machine.Accession + ".sheet"}, nil
}

func headingOf(f inventory.AssemblyInput) *sheet.Heading {
	h := &sheet.Heading{Title: f.Title}
	kind := f.Kind
	if kind == "board" {
		kind = "" // as a heading is read that says nothing
	}
	for _, attribute := range []sheet.Attribute{
		{Key: "kind", Value: kind}, {Key: "part", Value: f.Part}, {Key: "rev", Value: f.Rev},
		{Key: "serial", Value: f.Serial},
		{Key: "slot", Value: f.Slot}, {Key: "fit", Value: f.Fit}, {Key: "for", Value: f.Purpose},
	} {
		if attribute.Value != "" && attribute != (sheet.Attribute{Key: "fit", Value: "unknown"}) {
			h.Attributes = append(h.Attributes, attribute)
		}
	}
	return h
}

// exportColumns head the table of entries.
var exportColumns = []string{"accession", "board", "line", "designators", "count", "kind", "marking", "type", "class",
	"speed_ns", "date_from", "date_to", "purpose", "socketed", "empty", "doubtful", "findings", "new_since",
	"unidentified"}

// ExportEntries writes what stands on all sheets of a machine as a table in CSV (RFC 4180).
func (s *Service) ExportEntries(ctx context.Context, actor action.Actor, machineID int64) (action.Content, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (action.Content, error) {
		return s.exportEntries(ctx, actor, machineID)
	})
}

func (s *Service) exportEntries(ctx context.Context, actor action.Actor, machineID int64) (action.Content, error) {
	machine, err := s.subjects.Inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	fitted, err := sheets.Contents(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return action.Content{}, err
	}
	library, err := s.subjects.Library.Read(ctx)
	if err != nil {
		return action.Content{}, err
	}
	p, err := s.subjects.People.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	lines := [][]string{}
	for _, f := range fitted {
		result, err := sheets.ReckonBody(library, f.Body,
			sheets.OptionsFor(f.Purpose, f.Fit, inventory.EraOf(machine.EraFrom, machine.EraTo), actor.Day()))
		if err != nil {
			return action.Content{}, err
		}
		rows, _ := sheets.EntryRows(result)
		for _, e := range rows {
			lines = append(lines, exportRow(machine.Accession, p.Text(f.Title), people.PublicOf(p, sheets.EntryOf(e))))
		}
	}
	return action.CsvOf(machine.Accession+".csv", table.Write(exportColumns, lines)), nil
}

func exportRow(accession, board string, e sheets.Entry) []string {
	findings := []string{}
	for _, f := range e.Findings {
		findings = append(findings, strings.TrimSuffix(f.Kind+": "+f.Note, ": "))
	}
	figure := func(n int) string {
		if n == 0 {
			return ""
		}
		return strconv.Itoa(n)
	}
	day := func(date *string) string {
		if date == nil {
			return ""
		}
		return *date
	}
	return []string{accession, board, strconv.Itoa(e.Line), strings.Join(e.Designators, " "), strconv.Itoa(e.Count),
		e.Kind, e.Marking,
		e.TypeNumber, e.TypeClass, figure(e.SpeedNs), day(e.DateFrom), day(e.DateTo), e.Purpose,
		strconv.FormatBool(e.Socketed), strconv.FormatBool(e.Empty), strconv.FormatBool(e.Doubtful),
		strings.Join(findings, "; "), day(e.New), strconv.FormatBool(e.Unidentified)}
}

// ExportDossier writes what is known of a machine beside its boards as JSON.
func (s *Service) ExportDossier(ctx context.Context, actor action.Actor, machineID int64) (action.Content, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (action.Content, error) {
		return s.exportDossier(ctx, actor, machineID)
	})
}

func (s *Service) exportDossier(ctx context.Context, actor action.Actor, machineID int64) (action.Content, error) {
	machine, err := s.subjects.Inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	dossier, err := s.Dossier(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	wired, err := s.subjects.Teardown.Wiring(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	opened, err := s.subjects.Teardown.OpenedUp(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	found, err := s.subjects.Condition.Condition(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	measured, err := s.subjects.Condition.Measurements(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	adjusters, err := s.subjects.Condition.Adjusters(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	powered, err := s.subjects.Power.Power(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	treated, err := s.subjects.Work.Treatment(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	treated.Usual = []job.Template{} // they are the same for all machines
	p, err := s.subjects.People.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	document, err := json.MarshalIndent(people.PublicOf(p, struct {
		Machine      inventory.Machine       `json:"machine"`
		Dossier      Dossier                 `json:"dossier"`
		Wiring       teardown.Wiring         `json:"wiring"`
		OpenedUp     teardown.OpenedUp       `json:"openedUp"`
		Condition    condition.Condition     `json:"condition"`
		Measurements []condition.Measurement `json:"measurements"`
		Adjusters    []condition.Adjuster    `json:"adjusters"`
		Power        power.Power             `json:"power"`
		Treatment    work.Treatment          `json:"treatment"`
	}{machine, dossier, wired, opened, found, measured, adjusters, powered, treated}), "", "  ")
	return action.Content{Data: document, MediaType: "application/json", FileName: machine.Accession + ".json"}, err
}
