package roms

import (
	"context"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/rom"
	"frugalheron/store/roms"
)

// RomPage is a page of images.
type RomPage struct {
	Images []ListedRom `json:"images" doc:"Named ones first, by name and version"`
	More   bool        `json:"more"`
}

// RomList lists the images of the collection; words may be a part of a name or of a sum.
func (s *Service) RomList(ctx context.Context, actor action.Actor, words string, skip, limit int) (RomPage, error) {
	page := RomPage{Images: []ListedRom{}}
	if err := actor.Must(action.MayLook); err != nil {
		return page, err
	}
	found, err := roms.ListRoms(ctx, s.kernel.Reader(ctx), strings.Fields(words), actor.Hides(), skip, limit+1)
	if len(found) > limit {
		found, page.More = found[:limit], true
	}
	page.Images = action.Views(found, listedRomOf)
	return page, err
}

// RomView is what is known of an image.
type RomView struct {
	RomImage
	Inspection  rom.Inspection   `json:"inspection"`
	Code        []rom.StartMatch `json:"code" doc:"Processors whose way of starting fits, the best first"`
	JumpTable   *rom.StartMatch  `json:"jumpTable" doc:"Where it begins with a table of jumps, else null"`
	SameContent []RomImage       `json:"sameContent" doc:"The same content in another number of copies"`
	Holders     []RomHolder      `json:"holders" doc:"Sockets in which it was read last"`
	MayHave     bool             `json:"mayHave" doc:"Whether who asks may have the bytes"`
}

// Rom tells all that is known of an image. Its bytes may be kept from viewers, its sums never are.
func (s *Service) Rom(ctx context.Context, actor action.Actor, sum string) (RomView, error) {
	told := RomView{}
	if err := actor.Must(action.MayLook); err != nil {
		return told, err
	}
	image, err := roms.RomBySHA(ctx, s.kernel.Reader(ctx), sum)
	if err != nil {
		return told, err
	}
	told.RomImage = romImageOf(image)
	if told.Inspection, err = s.InspectionOf(ctx, sum); err != nil {
		return told, err
	}
	same, err := roms.SameContent(ctx, s.kernel.Reader(ctx), image)
	if err != nil {
		return told, err
	}
	told.SameContent = action.Views(same, romImageOf)
	holders, err := roms.RomHolders(ctx, s.kernel.Reader(ctx), []string{sum})
	if err != nil {
		return told, err
	}
	told.Holders = action.Views(holders, romHolderOf)
	told.MayHave = told.Public || !actor.Hides()
	told.Code = []rom.StartMatch{}
	if !told.MayHave {
		told.Inspection.Texts = []rom.Text{}
		return told, nil
	}
	data, err := s.romBytes(ctx, sum)
	if err != nil {
		return told, err
	}
	one := data[:told.Inspection.EffectiveBytes]
	told.Code, told.JumpTable = rom.StartMatches(one), rom.JumpTable(one)
	return told, nil
}

// RomBytes reads an image for who may have it.
func (s *Service) RomBytes(ctx context.Context, actor action.Actor, sum string) (RomImage, []byte, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return RomImage{}, nil, err
	}
	image, err := roms.RomBySHA(ctx, s.kernel.Reader(ctx), sum)
	if err != nil {
		return RomImage{}, nil, err
	}
	if !image.Public && actor.Hides() {
		return RomImage{}, nil, action.ErrForbidden
	}
	data, err := s.romBytes(ctx, sum)
	return romImageOf(image), data, err
}

// RomMap draws what an image holds, cell by cell.
func (s *Service) RomMap(ctx context.Context, actor action.Actor, sum string, cell int) (rom.Cells, error) {
	_, data, err := s.RomBytes(ctx, actor, sum)
	if err != nil {
		return rom.Cells{}, err
	}
	inspection, err := s.InspectionOf(ctx, sum)
	return rom.MapOf(data, inspection, cell), err
}

// HexRow is sixteen bytes of an image, or fewer at its end.
type HexRow struct {
	Offset int    `json:"offset"`
	Hex    string `json:"hex" doc:"Two figures a byte, a space between"`
	Text   string `json:"text" doc:"The bytes as text, a point for what is none"`
}

// hexRow is how many bytes stand in a row.
const hexRow = 16

// RomHex reads a stretch of an image as rows.
func (s *Service) RomHex(ctx context.Context, actor action.Actor, sum string, from, count int) ([]HexRow, error) {
	_, data, err := s.RomBytes(ctx, actor, sum)
	if err != nil {
		return nil, err
	}
	rows := []HexRow{}
	from -= from % hexRow
	for at := from; at < min(from+count, len(data)); at += hexRow {
		stretch := data[at:min(at+hexRow, len(data))]
		text := make([]byte, len(stretch))
		for i, b := range stretch {
			text[i] = '.'
			if b >= ' ' && b <= '~' {
				text[i] = b
			}
		}
		rows = append(rows, HexRow{at, fmt.Sprintf("% X", stretch), string(text)})
	}
	return rows, nil
}

// RomFile writes an image in a format, for who may have it.
func (s *Service) RomFile(ctx context.Context, actor action.Actor, sum string,
	format rom.Format) (action.Content, error) {
	image, data, err := s.RomBytes(ctx, actor, sum)
	if err != nil {
		return action.Content{}, err
	}
	ending := map[rom.Format]string{rom.Binary: "bin", rom.HexRecords: "hex", rom.SRecords: "s19"}[format]
	name := image.SHA256[:12]
	if image.Name != "" {
		name = fileWord(RomName(image.Name, image.Edition, image.SHA256)) + "-" + image.CRC32
	}
	file := action.Content{MediaType: "application/octet-stream", FileName: name + "." + ending}
	file.Data, err = rom.Encode(format, 0, data)
	return file, err
}

// fileWord makes a name fit for a file: letters and figures, and hyphens for the rest.
func fileWord(name string) string {
	return strings.Trim(strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || r == '.' {
			return r
		}
		return '-'
	}, name), "-.")
}

// RomComparison is two images side by side.
type RomComparison struct {
	rom.Comparison
	A     RomImage  `json:"a"`
	B     RomImage  `json:"b"`
	Cells rom.Cells `json:"cells" doc:"How much differs in each cell, in tenths"`
}

// CompareRoms compares two images; a is the earlier.
func (s *Service) CompareRoms(ctx context.Context, actor action.Actor, one, two string,
	cell int) (RomComparison, error) {
	var c RomComparison
	var first, second []byte
	var err error
	if c.A, first, err = s.RomBytes(ctx, actor, one); err != nil {
		return c, err
	}
	if c.B, second, err = s.RomBytes(ctx, actor, two); err != nil {
		return c, err
	}
	c.Comparison, c.Cells = rom.Compare(first, second), rom.DifferingCells(first, second, cell)
	return c, nil
}

// NameRom says what an image is. It is known by that wherever its content is met.
func (s *Service) NameRom(ctx context.Context, actor action.Actor, sum string, version int,
	fields RomInput) (RomImage, error) {
	if err := input.CheckAll(input.OneLine("name", &fields.Name), input.OneLine("romVersion", &fields.Edition),
		input.Lines("note", &fields.Note)); err != nil {
		return RomImage{}, err
	}
	if fields.Name == "" && fields.Edition != "" {
		return RomImage{}, action.Reject("name", "a version is one of something; name it, as Monitor")
	}
	var named roms.RomImage
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		before, err := roms.LockRom(ctx, tx, sum)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &action.Stale{What: "what is said of the image", Newer: romImageOf(before)}
		}
		if before.Public != fields.Public && !action.MayKeepTheRecord.Include(actor.Role) {
			return action.ErrForbidden
		}
		if err := roms.UpdateRom(ctx, tx, sum, roms.RomFields(fields)); err != nil {
			return err
		}
		if named, err = roms.RomBySHA(ctx, tx, sum); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventNameRom, before.ID, nil, RomInput(before.RomFields),
			RomInput(named.RomFields))
	})
	return romImageOf(named), err
}

// SplitRom deals an image out to lanes and keeps each as an image of its own.
func (s *Service) SplitRom(ctx context.Context, actor action.Actor, sum string, lanes int) ([]RomImage, error) {
	image, data, err := s.RomBytes(ctx, actor, sum)
	if err != nil {
		return nil, err
	}
	dealt, err := rom.Split(data, lanes)
	if err != nil {
		return nil, action.Reject("lanes", err.Error())
	}
	from := make([]string, lanes)
	for i := range from {
		from[i] = fmt.Sprintf("lane %d of %d of %s", i, lanes, RomName(image.Name, image.Edition, image.SHA256))
	}
	rows, err := s.makeRoms(ctx, actor, dealt, from)
	return action.Views(rows, romImageOf), err
}

// MergeRoms puts lanes together, lane 0 first, and keeps what comes out as an image of its own.
func (s *Service) MergeRoms(ctx context.Context, actor action.Actor, sums []string) (RomImage, error) {
	lanes, names := make([][]byte, len(sums)), make([]string, len(sums))
	for i, sum := range sums {
		image, data, err := s.RomBytes(ctx, actor, sum)
		if err != nil {
			return RomImage{}, err
		}
		lanes[i], names[i] = data, RomName(image.Name, image.Edition, image.SHA256)
	}
	merged, err := rom.Merge(lanes)
	if err != nil {
		return RomImage{}, action.Reject("lanes", err.Error())
	}
	made, err := s.makeRoms(ctx, actor, [][]byte{merged}, []string{"lanes of " + strings.Join(names, ", ")})
	if err != nil {
		return RomImage{}, err
	}
	return romImageOf(made[0]), nil
}

func (s *Service) makeRoms(ctx context.Context, actor action.Actor, contents [][]byte,
	from []string) ([]roms.RomImage, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	for _, data := range contents {
		if err := s.keepRom(ctx, data); err != nil {
			return nil, err
		}
	}
	made := make([]roms.RomImage, len(contents))
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		for i, data := range contents {
			image, _, isNew, err := noteRom(ctx, tx, actor, data, from[i])
			if err != nil {
				return err
			}
			made[i] = image
			if !isNew {
				continue
			}
			if err := action.Record(ctx, tx, actor, eventMakeRom, image.ID, nil, nil,
				map[string]string{"content": RomName(image.Name, image.Edition, image.SHA256), "from": from[i]}); err != nil {
				return err
			}
		}
		return nil
	})
	return made, err
}
