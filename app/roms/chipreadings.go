package roms

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"log/slog"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/rom"
	"frugalheron/instruments/romreader"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/roms"
)

// quiet is after how many seconds a running reading counts as left behind by its process.
const quiet = 20

// flushAfter is how often what was read is kept, so that little is read twice after a stop.
const flushAfter = 400 * time.Millisecond

// keepWithin is how long it may take to keep what was read.
const keepWithin = 3 * time.Second

// slowerThan is the rate, in bytes a second, below which a link is called slow. A rule of thumb: a chip of
// 32 KiB then takes more than half a minute.
const slowerThan = 2048

// Reader is the reader on the bench, and what a stand-in can be told.
type Reader struct {
	Address string   `json:"address" doc:"Empty when none is set up"`
	Name    string   `json:"name" doc:"What it calls itself; empty when it does not answer"`
	Trouble string   `json:"trouble" doc:"Why it does not answer, else empty"`
	Chips   []string `json:"chips" doc:"What a stand-in can be given to read; empty for a real reader"`
	Faults  []string `json:"faults" doc:"What a stand-in can be told to get wrong"`
	Holds   string   `json:"holds" doc:"What a stand-in has in its socket; empty for a real reader"`
	Fault   string   `json:"fault" doc:"What a stand-in gets wrong"`
}

// Reader asks for the reader on the bench.
func (s *Service) Reader(ctx context.Context, actor action.Actor) (Reader, error) {
	r := Reader{Address: s.reader, Chips: []string{}, Faults: []string{}}
	if err := actor.Must(action.MayWriteSheets); err != nil || s.reader == "" {
		return r, err
	}
	client, err := romreader.Dial(ctx, s.reader)
	if err != nil {
		r.Trouble = err.Error()
		return r, nil
	}
	defer client.Close()
	r.Name = client.Name()
	if chips, err := client.Chips(ctx); err == nil {
		r.Chips, r.Faults = chips, romreader.Faults()
		r.Holds, r.Fault, err = client.State(ctx)
		if err != nil {
			r.Trouble = err.Error()
		}
	}
	return r, nil
}

// PrepareStandIn puts a chip into a stand-in and tells it what to get wrong; what is empty stays as it is. A real reader
// refuses.
func (s *Service) PrepareStandIn(ctx context.Context, actor action.Actor, chip, fault string) error {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return err
	}
	client, err := romreader.Dial(ctx, s.reader)
	if err != nil {
		return action.Reject("reader", err.Error())
	}
	defer client.Close()
	if chip != "" {
		if err := client.Insert(ctx, chip); err != nil {
			return action.Reject("chip", err.Error())
		}
	}
	if fault != "" {
		if err := client.Spoil(ctx, fault); err != nil {
			return action.Reject("fault", err.Error())
		}
	}
	return nil
}

// ReadingInput says which chip the reader holds.
type ReadingInput struct {
	Designator string `json:"designator" minLength:"1" maxLength:"20"`
	Device     string `json:"device" minLength:"1" maxLength:"30" doc:"As 27128"`
	Label      string `json:"label" maxLength:"200" required:"false" doc:"What stands on the chip"`
	Exception  string `json:"exception" says:"text" maxLength:"400" required:"false" doc:"Why it is kept although an address line seems to make no difference"`
}

// StartReading has the reader read a chip twice; it goes on after the answer.
func (s *Service) StartReading(ctx context.Context, actor action.Actor, assemblyID int64,
	wanted ReadingInput) (ChipReading, error) {
	err := input.CheckAll(input.OneLine("designator", &wanted.Designator), input.OneLine("device", &wanted.Device),
		input.OneLine("label", &wanted.Label), input.OneLine("exception", &wanted.Exception))
	if err == nil {
		err = actor.Must(action.MayWriteSheets)
	}
	if err != nil {
		return ChipReading{}, err
	}
	if s.reader == "" {
		return ChipReading{}, action.Reject("reader", "no reader is set up; start the application with --reader")
	}
	client, err := romreader.Dial(ctx, s.reader)
	if err != nil {
		return ChipReading{}, action.Reject("reader", err.Error())
	}
	defer client.Close()
	size, err := client.Select(ctx, wanted.Device)
	if err != nil {
		return ChipReading{}, action.Reject("device", err.Error())
	}
	if size > rom.MaxBytes {
		return ChipReading{}, action.Reject("device",
			fmt.Sprintf("the reader says that it holds %d bytes; an image has at most %d", size, rom.MaxBytes))
	}
	var started roms.ChipReading
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.readerIsFree(ctx, tx); err != nil {
			return err
		}
		if _, err := inventory.LockAssembly(ctx, tx, assemblyID); err != nil {
			return err
		}
		id, err := roms.InsertChipReading(ctx, tx, actor.Account(), roms.ChipReading{
			AssemblyID: assemblyID, Designator: wanted.Designator, Device: wanted.Device, Label: wanted.Label,
			Exception: wanted.Exception, Size: size,
		})
		if err != nil {
			return err
		}
		if started, err = roms.ChipReadingByID(ctx, tx, id); err != nil {
			return err
		}
		return s.kernel.Enqueue(ctx, tx, readingJob{id, action.KeepActor(actor)})
	})
	return chipReadingOf(started), err
}

func (s *Service) readerIsFree(ctx context.Context, h pg.Handle) error {
	running, err := roms.RunningChipReadings(ctx, h, quiet)
	if err == nil && len(running) > 0 {
		return action.Reject("reader",
			fmt.Sprintf("it is reading %s still; wait for it, or stop it", running[0].Designator))
	}
	return err
}

// ChipReading tells how far a reading is.
func (s *Service) ChipReading(ctx context.Context, actor action.Actor, id int64) (ChipReading, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return ChipReading{}, err
	}
	r, err := roms.ChipReadingByID(ctx, s.kernel.Reader(ctx), id)
	if err == nil && r.State == "running" && time.Since(r.UpdatedAt) > quiet*time.Second {
		r.State, r.Note = "stopped",
			"the application was stopped while it read; what was read so far is kept, and it goes on by itself before long"
	}
	return chipReadingOf(r), err
}

// StopReading stops a reading; it can be gone on with.
func (s *Service) StopReading(ctx context.Context, actor action.Actor, id int64) (ChipReading, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return ChipReading{}, err
	}
	if _, err := roms.EndChipReading(ctx, s.kernel.Reader(ctx), id, "stopped",
		"it was stopped; what was read so far is kept"); err != nil {
		return ChipReading{}, err
	}
	return s.ChipReading(ctx, actor, id)
}

// ResumeReading goes on with a reading where it stopped.
func (s *Service) ResumeReading(ctx context.Context, actor action.Actor, id int64) (ChipReading, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return ChipReading{}, err
	}
	var r roms.ChipReading
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.readerIsFree(ctx, tx); err != nil {
			return err
		}
		resumed, err := roms.ResumeChipReading(ctx, tx, id, quiet)
		if err != nil {
			return err
		}
		if r, err = roms.ChipReadingByID(ctx, tx, id); err != nil {
			return err
		}
		if !resumed {
			return action.Reject("id", "it is over; start a new one")
		}
		return s.kernel.Enqueue(ctx, tx, readingJob{id, action.KeepActor(actor)})
	})
	return chipReadingOf(r), err
}

// readingJob has the reader read a chip.
type readingJob struct {
	Reading int64            `json:"reading"`
	For     action.KeptActor `json:"for"`
}

// Kind names it in the queue.
func (readingJob) Kind() string { return "read-chip" }

// Holds the reader: there is but one, whoever has it read, and whichever chip.
func (readingJob) Holds() string { return "the reader of chips" }

// isFreeFor reports whether the reader is at no other reading, which may have been started while this one was left by
// a process that is gone; else this one is stopped.
func (s *Service) isFreeFor(ctx context.Context, r roms.ChipReading) (bool, error) {
	running, err := roms.RunningChipReadings(ctx, s.kernel.Reader(ctx), quiet)
	for _, other := range running {
		if other.ID != r.ID {
			_, err := roms.EndChipReading(ctx, s.kernel.Reader(ctx), r.ID, "stopped",
				"the reader is reading "+other.Designator+" by now; what was read so far is kept")
			return false, err
		}
	}
	return err == nil, err
}

// readChip reads what is missing of a reading, and ends it, whatever comes of it. When the context ends first it returns
// the reason; what was read until then is kept.
func (s *Service) readChip(ctx context.Context, job readingJob) error {
	actor, err := job.For.Actor()
	if err != nil {
		return err
	}
	r, err := roms.ChipReadingByID(ctx, s.kernel.Reader(ctx), job.Reading)
	if err != nil || r.State != "running" {
		return err
	}
	free, err := s.isFreeFor(ctx, r)
	if err != nil || !free {
		return err
	}
	began := time.Now()
	if err = s.readPasses(ctx, r); err == nil {
		err = s.takePasses(ctx, actor, r, time.Since(began))
	}
	if err == nil || ctx.Err() != nil {
		return err
	}
	state, note := "refused", ""
	var refused *action.Invalid
	var byReader *romreader.RefusedError
	var unsteady *romreader.UnsteadyError
	switch {
	case errors.Is(err, errStopped):
		return nil
	case errors.As(err, &refused):
		note = refused.Why
	case errors.As(err, &unsteady), errors.As(err, &byReader):
		note = err.Error()
	case errors.Is(err, romreader.ErrLost):
		state, note = "stopped", err.Error()+"; what was read so far is kept. Look after the cable and go on."
	default:
		slog.Error("reading a chip", "reading", r.ID, "cause", err)
		state, note = "stopped", "something went wrong on the server; what was read so far is kept"
	}
	_, err = roms.EndChipReading(ctx, s.kernel.Reader(ctx), r.ID, state, note)
	return err
}

// errStopped ends a reading that somebody stopped.
var errStopped = errors.New("stopped")

// readPasses reads what is missing of two passes.
func (s *Service) readPasses(ctx context.Context, r roms.ChipReading) error {
	client, err := romreader.Dial(ctx, s.reader)
	if err != nil {
		return fmt.Errorf("%w (%v)", romreader.ErrLost, err)
	}
	defer client.Close()
	size, err := client.Select(ctx, r.Device)
	if err == nil && size != r.Size {
		err = &romreader.RefusedError{
			Why: fmt.Sprintf("the reader gives %d bytes for the device now, %d before", size, r.Size),
		}
	}
	if err != nil {
		return err
	}
	kept := r.Done
	pending, again, last := []byte{}, 0, time.Now()
	flush := func() error {
		// What was read is kept even where the work has to end now.
		ctx, cancel := context.WithTimeout(context.WithoutCancel(ctx), keepWithin)
		defer cancel()
		running, err := roms.AppendToChipReading(ctx, s.kernel.Reader(ctx), r.ID, kept, pending, again)
		if err == nil && !running {
			err = errStopped
		}
		kept += len(pending)
		pending, again, last = pending[:0], 0, time.Now()
		return err
	}
	for done := r.Done; done < 2*r.Size; {
		from := done % r.Size
		err := client.Read(ctx, from, r.Size, func(block romreader.Reading) error {
			pending, again = append(pending, block.Data...), again+block.Again
			done += len(block.Data)
			if time.Since(last) < flushAfter {
				return nil
			}
			return flush()
		})
		if unkept := flush(); err == nil {
			err = unkept
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// takePasses looks at both passes, and notes them as two readings of the chip; what was missing took so long to read.
func (s *Service) takePasses(ctx context.Context, actor action.Actor, r roms.ChipReading, took time.Duration) error {
	got, err := roms.BytesOfChipReading(ctx, s.kernel.Reader(ctx), r.ID)
	if err != nil {
		return err
	}
	first, second := got[:r.Size], got[r.Size:]
	if !bytes.Equal(first, second) {
		c := rom.Compare(first, second)
		return action.Reject("chip",
			fmt.Sprintf("two readings in a row differ in %d bytes (%s). %s", c.DifferingBytes, c.Verdict, c.Note))
	}
	inspection := rom.Inspect(first, nil)
	if len(inspection.IgnoredAddressLines) > 0 && r.Exception == "" {
		return action.Reject("chip", strings.Join(inspection.Warnings, " "))
	}
	of := RomReading{Designator: r.Designator, Label: r.Label, Exception: r.Exception,
		Method: "by the reader, as a " + r.Device}
	image := rom.Image{Format: rom.Binary, Data: first}
	files := []rom.File{{Name: "first reading"}, {Name: "second reading"}}
	// All or nothing: work that is done again after a restart notes nothing twice.
	return s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		now, err := roms.ChipReadingByID(ctx, tx, r.ID)
		if err != nil {
			return err
		}
		added, err := s.addReads(ctx, actor, r.AssemblyID, of, files, []rom.Image{image, image})
		if err != nil {
			return err
		}
		note := fmt.Sprintf("both readings are alike; %s is %s", r.Designator, added[1].Chip)
		if added[1].Known != "" {
			note += ": " + added[1].Known
		}
		if now.Again > 0 {
			note += fmt.Sprintf(". %d blocks had to be read again: look after the contacts", now.Again)
		}
		if rate := float64(2*r.Size-r.Done) / took.Seconds(); r.Done < 2*r.Size && rate < slowerThan {
			note += fmt.Sprintf(". The link is slow, %.0f bytes a second", rate)
		}
		ended, err := roms.EndChipReading(ctx, tx, r.ID, "done", note)
		if err == nil && !ended {
			err = errStopped
		}
		return err
	})
}
