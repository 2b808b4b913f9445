package files

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/app/picture"
	"frugalheron/core/annotation"
	"frugalheron/store/files"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
)

// AnnotationRow is a run of parts that lie in a row from one point to another.
type AnnotationRow struct {
	Designators []string `json:"designators" minItems:"1" maxItems:"200"`
	X1          float64  `json:"x1" minimum:"0" maximum:"1"`
	Y1          float64  `json:"y1" minimum:"0" maximum:"1"`
	X2          float64  `json:"x2" minimum:"0" maximum:"1"`
	Y2          float64  `json:"y2" minimum:"0" maximum:"1"`
}

// AnnotationView is what is drawn on a picture of a board, with the legend that follows from the sheet.
type AnnotationView struct {
	AttachmentID int64                 `json:"attachmentId"`
	AssemblyID   int64                 `json:"assemblyId" doc:"0 while the picture is tied to no board"`
	Assembly     string                `json:"assembly" says:"text"`
	Annotation   annotation.Annotation `json:"annotation"`
	Legend       annotation.Legend     `json:"legend"`
	Boxes        []annotation.Box      `json:"boxes" doc:"The outline of each block, in their order"`
	Version      int                   `json:"version" doc:"0 while nothing is drawn"`
}

// AnnotatedPictures lists the pictures of a machine that have numbers on them.
func (s *Service) AnnotatedPictures(ctx context.Context, actor action.Actor,
	machineID int64) ([]AnnotatedPicture, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	rows, err := files.AnnotatedPictures(ctx, s.kernel.Reader(ctx), machineID, actor.Hides())
	return action.Views(rows, annotatedPictureOf), err
}

// Annotation reads what is drawn on a picture.
func (s *Service) Annotation(ctx context.Context, actor action.Actor, attachmentID int64) (AnnotationView, error) {
	if _, err := s.annotated(ctx, actor, attachmentID); err != nil {
		return AnnotationView{}, err
	}
	return AnnotationOf(ctx, s.kernel.Reader(ctx), attachmentID)
}

func (s *Service) annotated(ctx context.Context, actor action.Actor, attachmentID int64) (Attachment, error) {
	one, err := s.Attachment(ctx, actor, attachmentID)
	if err == nil && one.Kind != string(picture.Picture) {
		err = action.ErrNotFound
	}
	return one, err
}

// AnnotationOf reads what is drawn on a picture; an empty annotation where nobody drew.
func AnnotationOf(ctx context.Context, h pg.Handle, attachmentID int64) (AnnotationView, error) {
	told := AnnotationView{AttachmentID: attachmentID,
		Annotation: annotation.Annotation{Callouts: []annotation.Callout{}, Blocks: []annotation.Block{}},
		Boxes:      []annotation.Box{}}
	kept, assemblyID, err := files.Annotation(ctx, h, attachmentID)
	switch {
	case errors.Is(err, action.ErrNotFound):
		told.Legend = annotation.LegendOf(told.Annotation, nil)
		return told, nil
	case err != nil:
		return told, err
	}
	if err := json.Unmarshal([]byte(kept.Body), &told.Annotation); err != nil {
		return told, err
	}
	told.Annotation = told.Annotation.Whole()
	assembly, err := storeinventory.AssemblyByID(ctx, h, assemblyID)
	if err != nil {
		return told, err
	}
	told.AssemblyID, told.Assembly, told.Version = assemblyID, assembly.Title, kept.Version
	entries, err := sheets.EntriesOf(ctx, h, assemblyID, 0, mostAnnotated)
	if err != nil {
		return told, err
	}
	lines := make([]annotation.Entry, len(entries))
	for i, e := range entries {
		words := e.Marking
		if e.Empty {
			words = strings.TrimSpace(words + " empty socket")
		}
		lines[i] = annotation.Entry{Line: e.Line, Designators: e.Designators, Words: words}
	}
	told.Legend = annotation.LegendOf(told.Annotation, lines)
	for _, b := range told.Annotation.Blocks {
		told.Boxes = append(told.Boxes, told.Annotation.BoxOf(b))
	}
	return told, nil
}

// mostAnnotated bounds the lines of a sheet that a legend is made from.
const mostAnnotated = 5000

// Annotate rewrites what is drawn on a picture, starting from a version; 0 for the first time. Rows are laid
// out between their ends, and take the place of callouts for the same parts.
func (s *Service) Annotate(ctx context.Context, actor action.Actor, attachmentID int64, version int, assemblyID int64,
	drawn annotation.Annotation, rows []AnnotationRow) (AnnotationView, error) {
	var told AnnotationView
	for _, row := range rows {
		for _, c := range annotation.Row(row.Designators, row.X1, row.Y1, row.X2, row.Y2) {
			drawn.Callouts = placed(drawn.Callouts, c)
		}
	}
	if err := annotation.Check(drawn); err != nil {
		return told, action.Reject("annotation", err.Error())
	}
	if _, err := s.annotated(ctx, actor, attachmentID); err != nil {
		return told, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		attachment, err := files.LockAttachment(ctx, tx, attachmentID)
		if err != nil {
			return err
		}
		before, err := AnnotationOf(ctx, tx, attachmentID)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &action.Stale{What: "what is drawn on the picture", Newer: before}
		}
		assembly, err := storeinventory.AssemblyByID(ctx, tx, assemblyID)
		if err != nil {
			return input.Missing(err, "assemblyId", "choose the board that the picture shows")
		}
		if attachment.MachineID != nil {
			if err := inventory.OfMachine(ctx, tx, *attachment.MachineID,
				inventory.NamedAs("assemblyId", storeinventory.OwnedBoard, assemblyID)); err != nil {
				return err
			}
		}
		if err := files.PutAnnotation(ctx, tx, attachmentID, assemblyID, drawn); err != nil {
			return err
		}
		if told, err = AnnotationOf(ctx, tx, attachmentID); err != nil {
			return err
		}
		after := map[string]any{"callouts": len(drawn.Callouts), "blocks": len(drawn.Blocks), "plan": drawn}
		return action.Record(ctx, tx, actor, eventDrawAnnotation, assembly.ID, attachment.MachineID,
			map[string]any{"plan": before.Annotation}, after)
	})
	return told, err
}

// placed puts a callout in the place of one for the same part.
func placed(callouts []annotation.Callout, c annotation.Callout) []annotation.Callout {
	for i := range callouts {
		if callouts[i].Designator == c.Designator {
			callouts[i] = c
			return callouts
		}
	}
	return append(callouts, c)
}

// AnnotationDrawing writes a picture with its numbers, outlines and legend as SVG; the picture is named by its
// address, or is in it.
func (s *Service) AnnotationDrawing(ctx context.Context, actor action.Actor, attachmentID int64,
	embedded bool) (action.Content, error) {
	one, err := s.annotated(ctx, actor, attachmentID)
	if err != nil {
		return action.Content{}, err
	}
	told, err := AnnotationOf(ctx, s.kernel.Reader(ctx), attachmentID)
	if err != nil {
		return action.Content{}, err
	}
	p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	told = people.PublicOf(p, told)
	address := fmt.Sprintf("/api/attachments/%d/view?size=screen", attachmentID)
	if embedded {
		view, err := s.View(ctx, actor, attachmentID, ScreenSide)
		if err != nil {
			return action.Content{}, err
		}
		address = "data:" + view.MediaType + ";base64," + base64.StdEncoding.EncodeToString(view.Data)
	}
	drawing := annotation.Draw(told.Assembly, address, one.Width, one.Height, told.Annotation, told.Legend)
	return action.Content{MediaType: "image/svg+xml", FileName: fmt.Sprintf("board-picture-%d.svg", attachmentID),
		Data: []byte(drawing)}, nil
}
