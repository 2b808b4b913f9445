package condition

import (
	"context"
	"slices"

	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/core/condition"
	"frugalheron/core/sheet"
	storelibrary "frugalheron/store/library"
	"frugalheron/store/pg"
)

// Recognised tells what an assembly is known as. What those of its kind are known to suffer from is settled by what was
// found on this one, however that is known.
func (s *Service) Recognised(ctx context.Context, actor action.Actor, assemblyID int64) (library.Recognised, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (library.Recognised, error) {
		told, err := s.library.RecognisedAs(ctx, actor, assemblyID)
		hasFaults := func(c library.KnownClaim) bool { return len(c.Suspect) > 0 }
		if err != nil || !slices.ContainsFunc(told.Claims, hasFaults) {
			return told, err
		}
		list, err := findingsOf(ctx, s.kernel.Reader(ctx), assemblyID)
		for _, c := range told.Claims {
			for i := range c.Suspect {
				list.settle(&c.Suspect[i])
			}
		}
		return told, err
	})
}

// KnownAssembly tells what is known of an assembly, and where it is.
func (s *Service) KnownAssembly(ctx context.Context, actor action.Actor, id int64) (library.KnownDetail, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (library.KnownDetail, error) {
		d, err := s.library.KnownAssembly(ctx, actor, id)
		if err != nil {
			return d, err
		}
		return d, findUntested(ctx, s.kernel.Reader(ctx), &d)
	})
}

// findUntested tells of each fault which of the places have it, and of which nobody has found out.
func findUntested(ctx context.Context, h pg.Handle, d *library.KnownDetail) error {
	for _, fault := range d.Details.Faults {
		d.Untested = append(d.Untested, library.Untested{Fault: fault, Open: []int64{}, Have: []int64{},
			Clear: []int64{}})
	}
	ids := []int64{}
	for _, place := range d.Places {
		if place.Match.Sure {
			ids = append(ids, place.AssemblyID)
		}
	}
	if len(d.Untested) == 0 || len(ids) == 0 {
		return nil
	}
	if len(ids) > mostSettled {
		ids, d.More = ids[:mostSettled], true
	}
	checks, err := storelibrary.FaultChecks(ctx, h, ids)
	if err != nil {
		return err
	}
	for _, id := range ids {
		list, err := findingsOf(ctx, h, id)
		if err != nil {
			return err
		}
		for i := range d.Untested {
			u := &d.Untested[i]
			suspicion := library.SuspicionOf(u.Fault, d.ID, id, checks)
			list.settle(&suspicion)
			switch suspicion.State {
			case "open":
				u.Open = append(u.Open, id)
			case "has it":
				u.Have = append(u.Have, id)
			default:
				u.Clear = append(u.Clear, id)
			}
		}
	}
	return nil
}

// mostSettled bounds of how many assemblies the findings are read for what they are known to suffer from.
const mostSettled = 100

// onBoard is what was found on a board.
type onBoard []condition.Finding

// findingsOf lists what was found on a board, wherever it is.
func findingsOf(ctx context.Context, h pg.Handle, assemblyID int64) (onBoard, error) {
	list, err := knownOfBoard(ctx, h, assemblyID)
	return list.findings, err
}

// storyOf is how what a fault names stands among the findings.
func (list onBoard) storyOf(fault string) (condition.Story, bool) {
	designator, kind := faultOn(fault)
	for _, f := range list {
		if f.Kind == kind && (f.Parts == designator || sheet.Names(f.Parts, designator)) {
			return f.Tell(), true
		}
	}
	return condition.Story{}, false
}

// settle lays what was found beside what was checked: the later of both counts.
func (list onBoard) settle(s *library.Suspicion) {
	story, found := list.storyOf(s.What)
	if !found || s.State != "open" && s.On > story.LastOn {
		return
	}
	s.State, s.On = "has it", story.FirstOn
	if !story.Open {
		s.State, s.On = "clear", story.GoneOn
	}
	if s.Note == "" {
		s.Note = "by what was found on it"
	}
}
