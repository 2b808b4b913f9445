package demo

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"image/png"
	"slices"
	"strings"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	appevidence "frugalheron/app/evidence"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/core/lot"
	"frugalheron/demo/drawn"
)

// collection is how the museum keeps its numbers.
var collection = inventory.CollectionInput{Name: "Estuary Heritage Collection", AccessionPattern: "EH-{number:4}",
	Currency: "EUR", TimeZone: "UTC", MainsVolts: 230, MainsHz: 50}

// toldLot is an arrival of the sample world, with names in place of ids.
type toldLot struct {
	arrivals.AcquisitionInput
	From   string
	Price  string
	Costs  map[string]string `json:"costs"`
	Papers map[string]string `json:"papers"` // texts of documents by file name
	Things []toldThing
}

type toldThing struct {
	Kind, Title, Estimate, Value, ValueNote string
	PassedOn, PassedTo, PassedFor           string
	Is                                      string // accession number of the machine that it is
	Store, Sheet                            string // the place where it went to store, and its sheet
}

// story is what is known of a machine beside its boards.
type story struct {
	Custody []struct {
		arrivals.CustodyInput
		Party string
	}
	Statements []appevidence.StatementInput
	Personal   []people.PersonalDataInput
	Cite       *appevidence.StatementInput // a statement that cites a part of the picture of the rear
}

func readWorld[T any](name string) (T, error) {
	var told T
	text, err := world.ReadFile(name)
	if err == nil {
		err = json.Unmarshal(text, &told)
	}
	if err != nil {
		err = fmt.Errorf("%s: %w", name, err)
	}
	return told, err
}

// teller tells the stories of the sample world. Each part that is there already is left alone, so that an
// interrupted seeding goes on where it was.
type teller struct {
	ctx      context.Context
	actions  *app.App
	curator  action.Actor
	parties  map[string]int64
	machines map[string]int64
	drawn    map[int64]drawnBoard // by machine
}

// drawnBoard is the picture of a machine's first board, and where the parts lie on it.
type drawnBoard struct {
	assembly, picture int64
	places            map[string]drawn.Part
}

func tellStories(ctx context.Context, actions *app.App, curator action.Actor, progress func(string)) error {
	t := teller{ctx, actions, curator, map[string]int64{}, map[string]int64{}, map[int64]drawnBoard{}}
	page, err := actions.Inventory.ListMachines(ctx, curator, inventory.MachineList{Limit: 200})
	if err != nil {
		return err
	}
	for _, m := range page.Machines {
		t.machines[m.Accession] = m.ID
	}
	for _, part := range []func() error{t.settings, t.people, t.lots, t.makers, t.models, t.known} {
		if err := part(); err != nil {
			return err
		}
	}
	stories, err := readWorld[map[string]story]("stories.json")
	if err != nil {
		return err
	}
	for i, m := range page.Machines {
		progress(fmt.Sprintf("story %d of %d: %s", i+1, len(page.Machines), m.Accession))
		machine, err := actions.Inventory.Machine(ctx, curator, m.ID)
		if err != nil {
			return err
		}
		if err := t.tell(machine, stories[m.Accession]); err != nil {
			return fmt.Errorf("%s: %w", m.Accession, err)
		}
	}
	for _, part := range []func() error{
		t.roms, t.identifications, t.questions, t.climates, t.teardowns, t.surveys, t.happened, t.measurements, t.signs,
		t.services, t.power, t.jobs, t.stores, t.upkeep, t.policies, t.wanted, t.diagnoses,
	} {
		if err := part(); err != nil {
			return err
		}
	}
	return nil
}

func (t teller) settings() error {
	now, err := t.actions.Inventory.Collection(t.ctx, t.curator)
	if err != nil || now.Name != "" {
		return err
	}
	_, err = t.actions.Inventory.ChangeCollection(t.ctx, t.curator, now.Version, collection)
	return err
}

func (t teller) people() error {
	parties, err := readWorld[[]people.PartyInput]("parties.json")
	if err != nil {
		return err
	}
	there, err := t.actions.People.Parties(t.ctx, t.curator, "")
	if err != nil {
		return err
	}
	for _, p := range there {
		t.parties[p.Name] = p.ID
	}
	for _, fields := range parties {
		if t.parties[fields.Name] != 0 {
			continue
		}
		added, err := t.actions.People.AddParty(t.ctx, t.curator, fields)
		if err != nil {
			return fmt.Errorf("%s: %w", fields.Name, err)
		}
		t.parties[added.Name] = added.ID
	}
	return nil
}

func (t teller) party(name string) (*int64, error) {
	if name == "" {
		return nil, nil
	}
	id, ok := t.parties[name]
	if !ok {
		return nil, fmt.Errorf("%s is not in parties.json", name)
	}
	return &id, nil
}

func (t teller) lots() error {
	lots, err := readWorld[[]toldLot]("lots.json")
	if err != nil {
		return err
	}
	there, err := t.actions.Arrivals.Lots(t.ctx, t.curator, "", 0, 200)
	if err != nil {
		return err
	}
	for _, told := range lots {
		if slices.ContainsFunc(there.Lots, func(l arrivals.Lot) bool { return l.Title == told.Title }) {
			continue
		}
		if err := t.receive(told); err != nil {
			return fmt.Errorf("%s: %w", told.Title, err)
		}
	}
	return nil
}

func (t teller) receive(told toldLot) error {
	var err error
	fields := told.AcquisitionInput
	if fields.PartyID, err = t.party(told.From); err != nil {
		return err
	}
	if fields.PriceCents, err = cents(told.Price); err != nil {
		return err
	}
	fields.Costs = []arrivals.ExtraCost{}
	for what, text := range told.Costs {
		amount, err := cents(text)
		if err != nil {
			return err
		}
		fields.Costs = append(fields.Costs, arrivals.ExtraCost{What: what, Cents: *amount})
	}
	slices.SortFunc(fields.Costs, func(a, b arrivals.ExtraCost) int { return strings.Compare(a.What, b.What) })
	things := []arrivals.LotItemInput{}
	for _, thing := range told.Things {
		item := arrivals.LotItemInput{Kind: thing.Kind, Title: thing.Title, ValueNote: thing.ValueNote,
			PassedOn: thing.PassedOn}
		for text, into := range map[*string]**int64{&thing.Estimate: &item.EstimateCents,
			&thing.Value: &item.ValueCents, &thing.PassedFor: &item.PassedForCents} {
			if *into, err = cents(*text); err != nil {
				return err
			}
		}
		if item.PassedTo, err = t.party(thing.PassedTo); err != nil {
			return err
		}
		things = append(things, item)
	}
	received, err := t.actions.Arrivals.Receive(t.ctx, t.curator, fields, things)
	if err != nil {
		return err
	}
	for i, thing := range told.Things {
		if err := t.place(received.ID, received.Things[i].ID, thing); err != nil {
			return fmt.Errorf("%s: %w", thing.Title, err)
		}
	}
	if !t.actions.Files.KeepsFiles() {
		return nil
	}
	for name, text := range told.Papers {
		if _, err := t.actions.Files.Attach(t.ctx, t.curator, files.Owner{AcquisitionID: &received.ID}, name,
			[]byte(text)); err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
	}
	return nil
}

// place says what became of a thing of a lot.
func (t teller) place(lotID, thingID int64, thing toldThing) error {
	now, err := t.actions.Arrivals.Lot(t.ctx, t.curator, lotID)
	if err != nil {
		return err
	}
	switch {
	case thing.Is != "":
		_, err = t.actions.Arrivals.ItemIsMachine(t.ctx, t.curator, lotID, now.Version, thingID, t.machines[thing.Is])
	case thing.Store != "":
		var added inventory.Assembly
		added, err = t.actions.Arrivals.ItemBecomesAssembly(t.ctx, t.curator, lotID, now.Version, thingID, thing.Store,
			inventory.AssemblyInput{Kind: "card", Title: thing.Title})
		if err == nil {
			_, err = t.actions.Sheets.SaveSheet(t.ctx, t.curator, added.ID, 0, thing.Sheet)
		}
	}
	return err
}

func cents(text string) (*int64, error) {
	if text == "" {
		return nil, nil
	}
	amount, err := lot.ParseAmount(text)
	return &amount, err
}

func (t teller) tell(machine inventory.Machine, told story) error {
	dossier, err := t.actions.Bench.Dossier(t.ctx, t.curator, machine.ID)
	if err != nil {
		return err
	}
	if err := t.lookOver(machine, dossier.ExteriorID); err != nil {
		return err
	}
	for _, link := range told.Custody[min(len(dossier.Chain.Links), len(told.Custody)):] {
		fields := link.CustodyInput
		if fields.PartyID, err = t.party(link.Party); err != nil {
			return err
		}
		if _, err := t.actions.Arrivals.TellCustody(t.ctx, t.curator, machine.ID, fields); err != nil {
			return err
		}
	}
	kept := 0
	for _, k := range dossier.Known {
		for _, s := range k.Statements {
			if s.ID != 0 {
				kept++
			}
		}
	}
	for _, said := range told.Statements[min(kept, len(told.Statements)):] {
		if _, err := t.actions.Evidence.StateEvidence(t.ctx, t.curator, machine.ID, said); err != nil {
			return err
		}
	}
	for _, data := range told.Personal[min(len(dossier.PersonalData), len(told.Personal)):] {
		if _, err := t.actions.People.NotePersonalData(t.ctx, t.curator, machine.ID, data); err != nil {
			return err
		}
	}
	return t.pictures(machine, told, kept > len(told.Statements))
}

// lookOver writes the sheet of the outside, where the sample world has one.
func (t teller) lookOver(machine inventory.Machine, exteriorID int64) error {
	text, err := world.ReadFile("exteriors/" + machine.Accession + ".exterior")
	if err != nil {
		return nil // not looked over yet
	}
	sheet, err := t.actions.Sheets.Sheet(t.ctx, t.curator, exteriorID)
	if err != nil || sheet.N > 0 {
		return err
	}
	_, err = t.actions.Sheets.SaveSheet(t.ctx, t.curator, exteriorID, 0, strings.TrimSuffix(string(text), "\n"))
	return err
}

// pictures draws the boards and the rear of a machine that was looked over.
func (t teller) pictures(machine inventory.Machine, told story, cited bool) error {
	if !t.actions.Files.KeepsFiles() {
		return nil
	}
	reckoned, err := t.actions.Bench.ReckonMachine(t.ctx, t.curator, machine.ID, nil)
	if err != nil {
		return err
	}
	fitted, err := t.actions.Sheets.Contents(t.ctx, t.curator, machine.ID)
	if err != nil || len(fitted) == 0 {
		return err
	}
	board := drawn.Board{Title: strings.TrimSpace(machine.Maker + " " + fitted[0].Part)}
	for _, e := range reckoned.Boards[0].Entries {
		board.Add(e.Designators, e.Count, string(e.Kind), e.Marking, e.Empty)
	}
	var file bytes.Buffer
	if err := png.Encode(&file, board.Draw()); err != nil {
		return err
	}
	shown, err := t.attach(machine, "board.png", file.Bytes(),
		files.AttachmentInput{Caption: fitted[0].Title, View: "board top"})
	if err != nil {
		return err
	}
	t.drawn[machine.ID] = drawnBoard{fitted[0].ID, shown.ID, board.Places()}
	if err := t.number(machine, fitted[0].ID, shown.ID, board); err != nil {
		return err
	}
	if _, err := world.ReadFile("exteriors/" + machine.Accession + ".exterior"); err != nil {
		return nil
	}
	rear, region := drawn.Rear(machine.Maker, machine.Model, machine.Serial)
	file.Reset()
	if err := png.Encode(&file, rear); err != nil {
		return err
	}
	picture, err := t.attach(machine, "rear.png", file.Bytes(),
		files.AttachmentInput{Caption: "Rear, with the rating plate", View: "rear", Taken: "2025-03-15"})
	if err != nil || told.Cite == nil || cited {
		return err
	}
	said := *told.Cite
	said.Kind, said.Cited, said.PictureID = "label", "rating plate", &picture.ID
	said.Region = &appevidence.Region{X: region.X, Y: region.Y, W: region.W, H: region.H}
	_, err = t.actions.Evidence.StateEvidence(t.ctx, t.curator, machine.ID, said)
	return err
}

func (t teller) attach(machine inventory.Machine, name string, data []byte,
	fields files.AttachmentInput) (files.Attachment, error) {
	added, err := t.actions.Files.Attach(t.ctx, t.curator, files.Owner{MachineID: &machine.ID},
		machine.Accession+"-"+name,
		data)
	if err != nil || added.Caption != "" {
		return added, err
	}
	changed, err := t.actions.Files.ChangeAttachment(t.ctx, t.curator, added.ID, added.Version, fields)
	return changed, err
}
