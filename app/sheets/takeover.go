package sheets

import (
	"context"
	"errors"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/core/malformed"
	"frugalheron/core/sheet"
	storeinventory "frugalheron/store/inventory"
)

// untitled names a board whose lines stand above any heading.
const untitled = "Board"

// TakeOverSheet adds a board to a machine for each heading of a text, with the lines below it as
// its sheet, verbatim. Lines with problems come along: they are shown at the bench.
func (s *Service) TakeOverSheet(ctx context.Context, actor action.Actor, machineID int64,
	text string) ([]inventory.Assembly, error) {
	var added []storeinventory.Assembly
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		var err error
		added, err = takeOver(ctx, tx, actor, machineID, text)
		return err
	})
	return action.Views(added, inventory.AssemblyOf), err
}

func takeOver(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64,
	text string) ([]storeinventory.Assembly, error) {
	parsed, err := sheet.Parse([]byte(text), sheet.Whole)
	var refused *malformed.Error
	if errors.As(err, &refused) {
		return nil, action.Reject("text", refused.Error())
	}
	if err != nil {
		return nil, err
	}
	if len(parsed.Assemblies) == 0 {
		return nil, action.Reject("text", "holds no board; start one with a heading, as == Main board")
	}
	added := []storeinventory.Assembly{}
	for _, board := range parsed.Assemblies {
		fields := fieldsOf(board.Heading)
		if err := inventory.CheckAssembly(&fields); err != nil {
			return nil, err
		}
		assembly, err := inventory.AddAssembly(ctx, tx, actor, machineID, fields)
		if err != nil {
			return nil, err
		}
		if _, _, err := AddRevision(ctx, tx, actor, assembly, 1, bodyOf(board)); err != nil {
			return nil, err
		}
		if assembly, err = storeinventory.AssemblyByID(ctx, tx, assembly.ID); err != nil {
			return nil, err
		}
		added = append(added, assembly)
	}
	return added, nil
}

// fieldsOf reads what a heading says. Values that are none of the known ones were pointed out
// by the parser; the board starts with "unknown" or nothing in their place.
func fieldsOf(h *sheet.Heading) inventory.AssemblyInput {
	fields := inventory.AssemblyInput{
		Title: untitled, Part: h.Value("part"), Rev: h.Value("rev"), Serial: h.Value("serial"), Slot: h.Value("slot"),
		Fit: h.Value("fit"), Purpose: h.Value("for"), Kind: h.Value("kind"),
	}
	if h != nil && h.Title != "" {
		fields.Title = h.Title
	}
	switch fields.Fit {
	case "factory", "period", "later", "modern":
	default:
		fields.Fit = "unknown"
	}
	switch fields.Kind {
	case "card", "drive", "supply", "keyboard", "monitor", "other":
	default:
		fields.Kind = "board"
	}
	switch fields.Purpose {
	case "main", "picture", "cache", "shared", "card":
	default:
		fields.Purpose = ""
	}
	return fields
}

// bodyOf is the text below a heading. What the heading says beyond the fields of an assembly is
// kept as comments at its top, so that nothing of the text is lost.
func bodyOf(a sheet.Assembly) string {
	lines := []string{}
	if a.Heading != nil {
		fields := fieldsOf(a.Heading)
		kept := map[string]string{"part": fields.Part, "rev": fields.Rev, "serial": fields.Serial, "slot": fields.Slot,
			"fit": fields.Fit, "for": fields.Purpose, "kind": fields.Kind}
		for _, attribute := range a.Heading.Attributes {
			if value, known := kept[attribute.Key]; !known || value != attribute.Value {
				lines = append(lines, strings.TrimSpace("# "+attribute.Key+" "+attribute.Value))
			}
		}
		if a.Heading.Comment != "" {
			lines = append(lines, a.Heading.Comment)
		}
	}
	for _, line := range a.Lines {
		lines = append(lines, line.Text)
	}
	return strings.Join(lines, "\n")
}
