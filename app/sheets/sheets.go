package sheets

import (
	"context"
	"errors"
	"math"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/core/census"
	"frugalheron/core/datecode"
	"frugalheron/core/device"
	"frugalheron/core/device/builtin"
	"frugalheron/core/exterior"
	"frugalheron/core/reckoning"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/sheets"
)

// SaveSheet keeps a new revision of an assembly's sheet, written on top of revision base (0 for
// the first). When somebody saved another since, the answer is *Stale with that revision. Saving
// what is there already adds nothing.
func (s *Service) SaveSheet(ctx context.Context, actor action.Actor, assemblyID int64, base int,
	body string) (Revision, error) {
	if err := Readable(body); err != nil {
		return Revision{}, err
	}
	var saved Revision
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		assembly, err := storeinventory.LockAssembly(ctx, tx, assemblyID)
		if err != nil {
			return err
		}
		newest, err := sheets.NewestRevision(ctx, tx, assemblyID)
		if err != nil && !errors.Is(err, action.ErrNotFound) {
			return err
		}
		switch {
		case newest.N != base && newest.Body != body:
			return &action.Stale{What: "the sheet", Newer: RevisionOf(newest)}
		case newest.Body == body && newest.N > 0:
			saved = RevisionOf(newest)
			return nil
		}
		saved, _, err = AddRevision(ctx, tx, actor, assembly, newest.N+1, body)
		return err
	})
	return saved, err
}

// Readable refuses text that cannot be a sheet at all.
func Readable(body string) error {
	return action.Second(ParseBody(body))
}

// AddRevision adds a revision and returns it with its event.
func AddRevision(ctx context.Context, tx *sqlx.Tx, actor action.Actor, assembly storeinventory.Assembly, n int,
	body string) (Revision, int64, error) {
	if err := sheets.InsertRevision(ctx, tx, assembly.ID, n, body, actor.Account()); err != nil {
		return Revision{}, 0, err
	}
	before := map[string]int{"revision": n - 1}
	event, err := action.RecordEvent(ctx, tx, actor, eventSaveSheet, assembly.ID, assembly.MachineID, before,
		map[string]int{"revision": n})
	if err != nil {
		return Revision{}, 0, err
	}
	added, err := sheets.NewestRevision(ctx, tx, assembly.ID)
	return RevisionOf(added), event, err
}

// renewEntries makes entries, positions and totals of assemblies anew from their newest revisions.
func (s *Service) renewEntries(ctx context.Context, tx *sqlx.Tx, ids []int64) error {
	library, err := s.library.Held(ctx, tx)
	if err != nil {
		return err
	}
	nobody, err := inventory.NobodyIn(ctx, tx)
	if err != nil {
		return err
	}
	for _, id := range ids {
		assembly, err := storeinventory.LockAssembly(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := reckonSheet(ctx, tx, nobody, library, assembly); err != nil {
			return err
		}
	}
	return nil
}

func reckonSheet(ctx context.Context, tx *sqlx.Tx, nobody action.Actor, library *device.Library,
	assembly storeinventory.Assembly) error {
	newest, err := sheets.NewestRevision(ctx, tx, assembly.ID)
	if errors.Is(err, action.ErrNotFound) {
		return nil
	}
	if err != nil {
		return err
	}
	if assembly.IsExterior() {
		return lookedOver(ctx, tx, nobody, assembly, newest)
	}
	var era datecode.Era
	if assembly.MachineID != nil {
		machine, err := storeinventory.MachineByID(ctx, tx, *assembly.MachineID)
		if err != nil {
			return err
		}
		era = inventory.EraOf(machine.EraFrom, machine.EraTo)
	}
	result, err := ReckonBody(library, newest.Body,
		OptionsFor(assembly.Purpose, assembly.Fit, era, nobody.Day()))
	if err != nil {
		return err
	}
	rows, positions := EntryRows(result)
	if assembly.IsVoided {
		rows = []sheets.EntryRow{} // nothing is found on it
	}
	if err := sheets.ReplaceEntries(ctx, tx, assembly.ID, newest.N, rows); err != nil {
		return err
	}
	if err := sheets.AddPositions(ctx, tx, assembly.ID, positions); err != nil {
		return err
	}
	if err := tellStory(ctx, tx, nobody, assembly, readBoard(library, newest.Body, result)); err != nil {
		return err
	}
	counts := result.Counts()
	return sheets.PutTotals(ctx, tx, assembly.ID, newest.N, builtin.Version, counts.Entries, counts.Problems,
		result.Totals, census.Of(entriesOf(result)).Can())
}

func entriesOf(result reckoning.Result) []reckoning.Entry {
	entries := []reckoning.Entry{}
	for _, a := range result.Assemblies {
		entries = append(entries, a.Entries...)
	}
	return entries
}

// EntryRows are the lines of a reckoned sheet as they are kept, and the positions that they name.
func EntryRows(result reckoning.Result) ([]sheets.EntryRow, []sheets.Position) {
	rows, positions := []sheets.EntryRow{}, []sheets.Position{}
	uncounted := 0
	for _, assembly := range result.Assemblies {
		for _, e := range assembly.Entries {
			row := sheets.EntryRow{
				Line: e.Line, Designators: e.Designators, Count: e.Count, Kind: string(e.Kind), Marking: e.Marking,
				SpeedNs: e.SpeedNs, Purpose: string(e.Purpose), Socketed: e.Socketed, Empty: e.Empty,
				Doubtful: e.Doubtful, New: e.New, Unidentified: e.IsUnidentified(), Findings: e.Findings,
			}
			if e.Type != nil {
				row.TypeNumber, row.TypeClass, row.TypeAges = e.Type.Number, string(e.Type.Class), e.Type.Ages
			}
			if e.Date != nil {
				from, to := e.Date.From.String(), e.Date.To.String()
				row.DateFrom, row.DateTo = &from, &to
			}
			rows = append(rows, row)
			for _, designator := range e.Designators {
				positions = append(positions, sheets.Position{Designator: designator, Ordinal: 1})
			}
			for range e.Count - len(e.Designators) {
				uncounted++
				positions = append(positions, sheets.Position{Ordinal: uncounted})
			}
		}
	}
	return rows, positions
}

// Sheet reads the newest revision of an assembly's sheet; revision 0, empty, before the first.
func (s *Service) Sheet(ctx context.Context, actor action.Actor, assemblyID int64) (Revision, error) {
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return Revision{}, err
	}
	revision, err := sheets.NewestRevision(ctx, s.kernel.Reader(ctx), assemblyID)
	if errors.Is(err, action.ErrNotFound) {
		return Revision{AssemblyID: assemblyID}, nil
	}
	return RevisionOf(revision), err
}

// Revisions lists revisions of an assembly's sheet, the newest first, below number before
// (0 for all).
func (s *Service) Revisions(ctx context.Context, actor action.Actor, assemblyID int64,
	before, limit int) ([]Revision, error) {
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return nil, err
	}
	if before == 0 {
		before = math.MaxInt32
	}
	rows, err := sheets.RevisionsOf(ctx, s.kernel.Reader(ctx), assemblyID, before, limit)
	return action.Views(rows, RevisionOf), err
}

// Positions lists the sockets and parts of an assembly that were ever written down.
func (s *Service) Positions(ctx context.Context, actor action.Actor, assemblyID, after int64,
	limit int) ([]Position, error) {
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return nil, err
	}
	rows, err := sheets.PositionsOf(ctx, s.kernel.Reader(ctx), assemblyID, after, limit)
	return action.Views(rows, positionOf), err
}

// Entries lists the parsed lines of an assembly's newest sheet, after a line.
func (s *Service) Entries(ctx context.Context, actor action.Actor, assemblyID int64,
	afterLine, limit int) ([]Entry, error) {
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return nil, err
	}
	rows, err := sheets.EntriesOf(ctx, s.kernel.Reader(ctx), assemblyID, afterLine, limit)
	return action.Views(rows, EntryOf), err
}

// lookedOver takes in what a new revision of an outside says.
func lookedOver(ctx context.Context, tx *sqlx.Tx, nobody action.Actor, assembly storeinventory.Assembly,
	newest sheets.Revision) error {
	if err := tellStory(ctx, tx, nobody, assembly, readOutside); err != nil {
		return err
	}
	seen := exterior.Parse(newest.Body)
	return sheets.PutTotals(ctx, tx, assembly.ID, newest.N, builtin.Version, len(seen.Entries), len(seen.Problems),
		reckoning.Totals{}, nil)
}
