package condition

import (
	"context"
	"slices"

	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/core/condition"
	"frugalheron/core/sheet"
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
		if err != nil || len(d.Untested) == 0 {
			return d, err
		}
		sure := slices.DeleteFunc(slices.Clone(d.Places), func(p library.KnownPlace) bool { return !p.Match.Sure })
		if len(sure) > mostSettled {
			sure, d.More = sure[:mostSettled], true
		}
		for _, place := range sure {
			list, err := findingsOf(ctx, s.kernel.Reader(ctx), place.AssemblyID)
			if err != nil {
				return d, err
			}
			for i := range d.Untested {
				list.sort(&d.Untested[i], place.AssemblyID)
			}
		}
		return d, nil
	})
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

// sort puts a board to those that have a fault or do not, by what was found on it.
func (list onBoard) sort(u *library.Untested, id int64) {
	story, found := list.storyOf(u.What)
	if !found || !slices.Contains(u.Open, id) {
		return
	}
	u.Open = slices.DeleteFunc(u.Open, func(open int64) bool { return open == id })
	if story.Open {
		u.Have = append(u.Have, id)
	} else {
		u.Clear = append(u.Clear, id)
	}
}
