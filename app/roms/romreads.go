package roms

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"regexp"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/rom"
	"frugalheron/store/blobs"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/roms"
)

// RomReading says which chip files were read from, and how.
type RomReading struct {
	Designator string `json:"designator" maxLength:"20"`
	Label      string `json:"label" maxLength:"200" required:"false" doc:"What stands on the chip"`
	Method     string `json:"method" says:"text" maxLength:"200" required:"false" doc:"How it was read"`
	ReadOn     string `json:"readOn" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Exception  string `json:"exception" says:"text" maxLength:"400" required:"false" doc:"Why no second reading can be had"`
}

// AddedRead is what became of a file.
type AddedRead struct {
	File       string        `json:"file"`
	Designator string        `json:"designator"`
	SHA256     string        `json:"sha256"`
	Format     rom.Format    `json:"format" enum:"bin,ihex,srec"`
	IsNew      bool          `json:"isNew" doc:"The content was not known"`
	Known      string        `json:"known" doc:"What the content is called where it is known, else empty"`
	Warnings   []string      `json:"warnings" says:"text"`
	Chip       rom.ReadState `json:"chip" enum:"not read,read once,read,readings differ,fading" doc:"How far the chip is known now"`
}

// AddRomFile keeps a file that was read out of a chip: binary, records, or an archive of such. A file of an
// archive whose name starts with the designator of another chip of the board goes to that chip. All files
// are kept, or none.
func (s *Service) AddRomFile(ctx context.Context, actor action.Actor, assemblyID int64, of RomReading, fileName string,
	data []byte) ([]AddedRead, error) {
	files := []rom.File{{Name: fileName, Data: data}}
	if rom.IsArchive(data) {
		var err error
		if files, err = rom.Unpack(data); err != nil {
			return nil, action.Reject("file", err.Error())
		}
	}
	images := make([]rom.Image, len(files))
	for i, file := range files {
		image, err := rom.Decode(file.Data)
		if err == nil && len(image.Data) == 0 {
			err = errors.New("it is empty")
		}
		if err != nil {
			return nil, action.Reject("file", file.Name+": "+err.Error())
		}
		images[i] = image
	}
	if of.Method == "" {
		of.Method = "from a file"
	}
	return s.addReads(ctx, actor, assemblyID, of, files, images)
}

// startOfName is a designator that a file is called after.
var startOfName = regexp.MustCompile(`^([A-Za-z]{1,3}\d{1,4})(?:[^0-9]|$)`)

func (s *Service) addReads(ctx context.Context, actor action.Actor, assemblyID int64, of RomReading, files []rom.File,
	images []rom.Image) ([]AddedRead, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	err := input.CheckAll(input.OneLine("designator", &of.Designator), input.OneLine("label", &of.Label),
		input.OneLine("method", &of.Method), input.OneLine("exception", &of.Exception))
	switch {
	case err != nil:
		return nil, err
	case of.Designator == "":
		return nil, action.Reject("designator", "say which chip it was read from, as U14")
	case of.ReadOn == "":
		of.ReadOn = actor.Today()
	default:
		if err := input.PastDay("readOn", of.ReadOn, actor.Today()); err != nil {
			return nil, err
		}
	}
	for i := range images {
		if err := s.keepRom(ctx, images[i].Data); err != nil {
			return nil, err
		}
	}
	var added []AddedRead
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		added = []AddedRead{}
		assembly, err := inventory.LockAssembly(ctx, tx, assemblyID)
		if err != nil {
			return err
		}
		lines, err := roms.RomSocketsOf(ctx, tx, []int64{assemblyID}, romClasses())
		if err != nil {
			return err
		}
		for i, image := range images {
			one := of
			if match := startOfName.FindStringSubmatch(files[i].Name); match != nil && len(files) > 1 &&
				hasSocket(lines, strings.ToUpper(match[1])) {
				one.Designator = strings.ToUpper(match[1])
			}
			kept, err := s.addRead(ctx, tx, actor, assembly, lines, one, files[i].Name, image)
			if err != nil {
				return err
			}
			added = append(added, kept)
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	return added, s.tellChips(ctx, assemblyID, added)
}

func hasSocket(lines []roms.RomSocket, designator string) bool {
	return slices.ContainsFunc(lines, func(l roms.RomSocket) bool {
		return slices.Contains(strings.Fields(l.Designators), designator)
	})
}

// keepRom keeps the bytes before anything names them.
func (s *Service) keepRom(ctx context.Context, data []byte) error {
	if s.blobs == nil {
		return action.Reject("file", "no store for images is set up; start the application with --blobs")
	}
	_, err := s.blobs.PutContent(ctx, blobs.Roms, data, "application/octet-stream")
	return err
}

// noteRom notes what an image holds, unless it is noted.
func noteRom(ctx context.Context, tx *sqlx.Tx, actor action.Actor, data []byte,
	madeFrom string) (roms.RomImage, rom.Inspection, bool, error) {
	inspection := rom.Inspect(data, nil)
	one := sha256.Sum256(data[:inspection.EffectiveBytes])
	isNew, err := roms.PutRom(ctx, tx, actor.Account(), roms.RomImage{
		SHA256: inspection.SHA256, Bytes: len(data), CRC32: inspection.CRC32, SHA1: inspection.SHA1,
		Effective: hex.EncodeToString(one[:]), MadeFrom: madeFrom,
	}, inspection)
	if err != nil {
		return roms.RomImage{}, inspection, false, err
	}
	image, err := roms.RomBySHA(ctx, tx, inspection.SHA256)
	return image, inspection, isNew, err
}

func (s *Service) addRead(ctx context.Context, tx *sqlx.Tx, actor action.Actor, assembly inventory.Assembly,
	lines []roms.RomSocket, of RomReading, fileName string, decoded rom.Image) (AddedRead, error) {
	image, inspection, isNew, err := noteRom(ctx, tx, actor, decoded.Data, "")
	if err != nil {
		return AddedRead{}, err
	}
	read := roms.RomRead{
		SHA256: image.SHA256, AssemblyID: assembly.ID, Designator: of.Designator, Label: of.Label,
		Revision: assembly.Revision,
		Method:   of.Method, ReadOn: of.ReadOn, Exception: of.Exception,
	}
	for _, line := range lines {
		if slices.Contains(strings.Fields(line.Designators), of.Designator) {
			read.Marking = line.Marking
		}
	}
	id, err := roms.InsertRomRead(ctx, tx, actor.Account(), read)
	if err != nil {
		return AddedRead{}, err
	}
	added := AddedRead{File: fileName, Designator: of.Designator, SHA256: image.SHA256, Format: decoded.Format,
		IsNew: isNew, Warnings: inspection.Warnings}
	if image.Name != "" {
		added.Known = RomName(image.Name, image.Edition, image.SHA256)
	}
	told := map[string]any{"designator": of.Designator, "board": assembly.Title, "way": of.Method,
		"content": RomName(image.Name, image.Edition, image.SHA256), "exception": of.Exception}
	return added, action.Record(ctx, tx, actor, eventReadChip, id, assembly.MachineID, nil, told)
}

// tellChips says how far the chips are known after files were added.
func (s *Service) tellChips(ctx context.Context, assemblyID int64, added []AddedRead) error {
	assembly, err := inventory.AssemblyByID(ctx, s.kernel.Reader(ctx), assemblyID)
	if err != nil {
		return err
	}
	sockets, err := s.romSockets(ctx, []inventory.Assembly{assembly})
	for i := range added {
		for _, socket := range sockets {
			if socket.Designator == added[i].Designator {
				added[i].Chip = socket.Chip.State
			}
		}
	}
	return err
}

// ExceptRead lets a reading count alone, with the reason why no second one can be had.
func (s *Service) ExceptRead(ctx context.Context, actor action.Actor, id int64, why string) error {
	if err := input.OneLine("why", &why); err != nil {
		return err
	}
	if why == "" {
		return action.Reject("why", "say why no second reading can be had, as: the chip did not survive the first")
	}
	return s.onRead(ctx, actor, id, func(tx *sqlx.Tx, read roms.RomRead, machineID *int64) error {
		if err := roms.ExceptRomRead(ctx, tx, id, why); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventExceptRead, id, machineID, nil,
			map[string]any{"designator": read.Designator, "why": why})
	})
}

// VoidRead strikes out a reading that was noted at the wrong chip, and returns the event.
func (s *Service) VoidRead(ctx context.Context, actor action.Actor, id int64) (int64, error) {
	var event int64
	err := s.onRead(ctx, actor, id, func(tx *sqlx.Tx, read roms.RomRead, machineID *int64) error {
		if err := roms.VoidRomRead(ctx, tx, id, true); err != nil {
			return err
		}
		var err error
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidRead, id, machineID,
			map[string]any{"designator": read.Designator, "readOn": read.ReadOn}, nil)
		return err
	})
	return event, err
}

func (s *Service) undoVoidRead(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		read, err := roms.RomReadByID(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		assembly, err := inventory.LockAssembly(ctx, tx, read.AssemblyID)
		if err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := roms.VoidRomRead(ctx, tx, e.SubjectID, false); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackVoidOfRead, e.SubjectID, assembly.MachineID, nil,
			map[string]any{"designator": read.Designator, "readOn": read.ReadOn})
	})
}

func (s *Service) onRead(ctx context.Context, actor action.Actor, id int64,
	work func(tx *sqlx.Tx, read roms.RomRead, machineID *int64) error) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		read, err := roms.RomReadByID(ctx, tx, id)
		if err != nil {
			return err
		}
		assembly, err := inventory.LockAssembly(ctx, tx, read.AssemblyID)
		if err != nil {
			return err
		}
		if read, err = roms.RomReadByID(ctx, tx, id); err == nil && read.Voided {
			err = action.ErrNotFound
		}
		if err != nil {
			return err
		}
		return work(tx, read, assembly.MachineID)
	})
}
