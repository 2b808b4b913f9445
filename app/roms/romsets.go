package roms

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/rom"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/roms"
)

// RomSetView is a set of images with the boards that hold it.
type RomSetView struct {
	RomSet
	Images []RomSetImage `json:"images"`
	Boards []SetOnBoard  `json:"boards" doc:"Boards that hold something of it"`
}

// SetOnBoard is a board that holds a set, all of it or a part.
type SetOnBoard struct {
	MachineID  *int64 `json:"machineId"`
	Accession  string `json:"accession"`
	AssemblyID int64  `json:"assemblyId"`
	Assembly   string `json:"assembly" says:"text"`
	rom.Holding
}

// RomSets lists the sets of images, each with who has it and who differs.
func (s *Service) RomSets(ctx context.Context, actor action.Actor) ([]RomSetView, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	sets, images, err := roms.ListRomSets(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return nil, err
	}
	told := make([]RomSetView, len(sets))
	for i, set := range sets {
		told[i] = RomSetView{RomSet: RomSet(set), Images: []RomSetImage{}, Boards: []SetOnBoard{}}
		for _, image := range images {
			if image.SetID == set.ID {
				told[i].Images = append(told[i].Images, romSetImageOf(image))
			}
		}
		if err := s.tellBoards(ctx, &told[i]); err != nil {
			return nil, err
		}
	}
	return told, nil
}

// tellBoards finds the boards that hold an image of the set, and lays what they hold beside it.
func (s *Service) tellBoards(ctx context.Context, told *RomSetView) error {
	set, sums := map[string]string{}, []string{}
	for _, image := range told.Images {
		set[image.Place] = image.SHA256
		sums = append(sums, image.SHA256)
	}
	holders, err := roms.RomHolders(ctx, s.kernel.Reader(ctx), sums)
	if err != nil {
		return err
	}
	boards, order := map[int64]roms.RomHolder{}, []int64{}
	for _, holder := range holders {
		if _, ok := boards[holder.AssemblyID]; !ok {
			boards[holder.AssemblyID] = holder
			order = append(order, holder.AssemblyID)
		}
	}
	reads, err := roms.RomReadsOf(ctx, s.kernel.Reader(ctx), order)
	if err != nil {
		return err
	}
	for _, id := range order {
		held := map[string]string{}
		for _, r := range reads {
			if r.AssemblyID == id {
				held[r.Designator] = r.SHA256 // the oldest first: the newest stays
			}
		}
		if holding, any := rom.HoldsSet(set, held); any {
			board := boards[id]
			told.Boards = append(told.Boards, SetOnBoard{board.MachineID, board.Accession, id, board.Assembly, holding})
		}
	}
	return nil
}

// NameRomSet names the contents that count on a board as a set.
func (s *Service) NameRomSet(ctx context.Context, actor action.Actor, assemblyID int64,
	name, note string) (RomSet, error) {
	var set RomSet
	if err := input.CheckAll(input.OneLine("name", &name), input.Lines("note", &note)); err != nil {
		return RomSet{}, err
	}
	if name == "" {
		return RomSet{}, action.Reject("name", "name the set, as Harbour BASIC 1.1")
	}
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return RomSet{}, err
	}
	assembly, err := inventory.AssemblyByID(ctx, s.kernel.Reader(ctx), assemblyID)
	if err != nil {
		return RomSet{}, err
	}
	sockets, err := s.romSockets(ctx, []inventory.Assembly{assembly})
	if err != nil {
		return RomSet{}, err
	}
	images := []roms.RomSetImage{}
	for _, socket := range sockets {
		if socket.Chip.SHA256 != "" {
			images = append(images, roms.RomSetImage{SHA256: socket.Chip.SHA256, Place: socket.Designator})
		}
	}
	if len(images) == 0 {
		return RomSet{}, action.Reject("name", "no chip of the board was read so that it counts; read them first")
	}
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		id, err := roms.InsertRomSet(ctx, tx, name, note, images)
		if pg.Violates(err, "rom_set_name_key") {
			return action.Reject("name", name+" is in the list already")
		}
		if err != nil {
			return err
		}
		set = RomSet{ID: id, Name: name, Note: note}
		return action.Record(ctx, tx, actor, eventNameRomSet, id, assembly.MachineID, nil,
			map[string]any{"name": name, "chips": len(images), "board": assembly.Title})
	})
	return set, err
}
